import { useMemo, useState } from 'react';
import { sizeOf, type Result } from '@ipsonomo/core/net';
import { applyEdits, planOf, type Device, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { copyMachine, type Copying, type CopyOrder } from '@ipsonomo/core/reshape';
import { countWrong, snagsOf, type Snag } from '@ipsonomo/core/snags';
import { newId } from '../../../data/new-id';

/** What is copied and how, as it is typed, with what would come of it. */
export function useCopy(
  plan: Plan | undefined,
  doc: PlanDoc | undefined,
  snags: readonly Snag[] | undefined,
) {
  const [subnetIds, setSubnetIds] = useState<ReadonlySet<string>>(new Set());
  const [countText, setCount] = useState('1');
  const [first, setFirst] = useState('2');
  const [by, setBy] = useState<'offset' | 'realm'>('offset');
  const [typedOffset, setOffset] = useState<string>();
  const [find, setFind] = useState('');
  const [replace, setReplace] = useState('');
  const [now] = useState(() => Date.now());
  const devices = useMemo(() => devicesIn(plan, subnetIds), [plan, subnetIds]);
  const offset = typedOffset ?? String(span(plan, subnetIds));
  const count = wholeOf(countText) ?? 0;
  const made = useMemo((): Result<Copying> | undefined => {
    if (!plan || devices.length === 0 || count < 1 || count > MOST_COPIES) return undefined;
    const order: CopyOrder = {
      deviceIds: new Set(devices.map((one) => one.id)),
      ...{ subnetIds, count, find, replace },
      apart: by === 'realm' ? { by } : { by, offset: wholeOf(offset) ?? 0 },
      first: wholeOf(first) ?? 2,
    };
    return copyMachine(plan, order, now, newId);
  }, [plan, devices, subnetIds, count, by, offset, find, replace, first, now]);
  const newWrong = useMemo(
    () => (doc && snags && made?.ok ? wrongAfter(doc, made.value) - countWrong(snags) : 0),
    [doc, snags, made],
  );
  const toggleSubnet = (id: string) =>
    setSubnetIds((known) => {
      const next = new Set(known);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return {
    ...{ subnetIds, toggleSubnet, devices, countText, setCount, count, first, setFirst, by, setBy },
    ...{ offset, setOffset, find, setFind, replace, setReplace, made, newWrong },
  };
}

export type CopyForm = ReturnType<typeof useCopy>;

const MOST_COPIES = 200;

const wholeOf = (text: string): number | undefined =>
  /^-?\d{1,9}$/.test(text.trim()) ? Number(text) : undefined;

const devicesIn = (plan: Plan | undefined, subnetIds: ReadonlySet<string>): readonly Device[] =>
  plan?.devices.filter((one) => one.interfaces.some((at) => subnetIds.has(at.subnetId))) ?? [];

/** The room that the chosen subnets take together, up to the next power of two: copies never meet. */
function span(plan: Plan | undefined, subnetIds: ReadonlySet<string>): number {
  const chosen = plan?.subnets.filter((one) => subnetIds.has(one.id)) ?? [];
  if (chosen.length === 0) return 0;
  const low = Math.min(...chosen.map((one) => one.prefix.network));
  const high = Math.max(...chosen.map((one) => one.prefix.network + sizeOf(one.prefix)));
  return 2 ** Math.ceil(Math.log2(high - low));
}

function wrongAfter(doc: PlanDoc, { edits }: Copying): number {
  const outcome = applyEdits(doc, edits);
  return outcome.ok ? countWrong(snagsOf(planOf(outcome.value.doc))) : 0;
}
