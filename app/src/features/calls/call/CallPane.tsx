import type { InterfaceView } from '@ipsonomo/core/api';
import { findKind, isAsking, isKeyed, isNamedOverLayer2, type Stage } from '@ipsonomo/core/plan';
import { useMemo } from 'react';
import { useHeard, usePlan } from '../../../data';
import { Page } from '../../../parts';
import { HeardBook } from '../assign/awaited';
import { lengthOf } from '../../words';
import { ArriveStep } from './ArriveStep';
import { BindStep } from './BindStep';
import { FindStation } from './FindStation';
import { HandStep } from './HandStep';
import { KeyedStep } from './KeyedStep';
import type { Call } from './CallPage';
import { GiveStep } from './GiveStep';
import { LoanStep } from './Lend';
import { PinStep } from './PinStep';
import { ProveStep } from './ProveStep';

/** One device at the cabinet: where it stands in its five stages, and the one next action. */
export function CallPane({ job, id }: { readonly job: string; readonly id: string }) {
  const { view, plan } = usePlan(job);
  const heard = useHeard();
  const book = useMemo(
    () => (view && plan ? new HeardBook(view, plan, heard) : undefined),
    [view, plan, heard],
  );
  const planned = view?.devices.flatMap((device) =>
    device.interfaces.flatMap((at) => (at.id === id ? [{ device, at }] : [])),
  );
  const [found] = planned ?? [];
  if (!view || !plan || !book || !found) return <Page>{null}</Page>;
  const { device, at } = found;
  const call: Call = {
    job,
    plan,
    device,
    at,
    kind: findKind(plan, device.kindId),
    offers: book.offersTo(at),
    length: lengthOf(view.subnets.find((one) => one.id === at.subnetId)?.network),
  };
  return <Step call={call} />;
}

/** How the MAC of a device comes to be known follows from its way. */
function Unbound({ call }: { readonly call: Call }) {
  const { at, device } = call;
  if (isNamedOverLayer2(device.way)) return <FindStation call={call} />;
  const isThere =
    at.arrived !== null || at.before !== null || at.check?.facts['what'] === 'unbound';
  if (isAsking(device.way) || isThere) return <BindStep call={call} />;
  return device.way === 'switches' || device.way === 'card' ? (
    <ArriveStep call={call} />
  ) : (
    <HandStep call={call} />
  );
}

const reached = (at: InterfaceView, stage: Stage): boolean =>
  at.notches.some((notch) => notch.stage === stage && notch.state === 'reached');

/** Which step is next follows from what was seen, never from a tick. */
function Step({ call }: { readonly call: Call }) {
  const { at, device } = call;
  if (at.loan && !reached(at, 'given')) return <LoanStep call={call} />;
  if (isKeyed(device.way)) {
    if (!reached(at, 'given')) return <KeyedStep call={call} />;
  } else if (at.mac === null) return <Unbound call={call} />;
  if (!reached(at, 'given')) return <GiveStep call={call} />;
  if (!reached(at, 'pinned')) return <PinStep call={call} />;
  return <ProveStep call={call} />;
}
