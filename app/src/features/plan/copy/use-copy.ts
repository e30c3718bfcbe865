import { useMemo, useState } from 'react';
import { sizeOf, type Result } from '@ipsonomo/core/net';
import { applyEdits, planOf, type Device, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { copyMachine, type Copying, type CopyOrder } from '@ipsonomo/core/reshape';
import { countWrong, snagsOf, type Snag } from '@ipsonomo/core/snags';
import { useKept } from '../../../parts';
import { newId } from '../../../data/new-id';

interface Begun {
  readonly subnetIds: readonly string[];
  readonly countText: string;
  readonly first: string;
  readonly by: 'offset' | 'realm';
  /** Empty: as far as the chosen subnets reach. */
  readonly offset: string;
  readonly find: string;
  readonly replace: string;
}

const BEGUN: Begun = {
  ...{ subnetIds: [], countText: '1', first: '2', by: 'offset', offset: '', find: '', replace: '' },
};

/** What is copied and how, as it is typed, with what would come of it. */
export function useCopy(
  job: string,
  plan: Plan | undefined,
  doc: PlanDoc | undefined,
  snags: readonly Snag[] | undefined,
) {
  const [typed, keep, forget] = useKept(`copy ${job}`, BEGUN);
  const { countText, first, by, find, replace } = typed;
  const set = (field: keyof Begun) => (text: string) => keep((all) => ({ ...all, [field]: text }));
  const subnetIds = useMemo(() => new Set(typed.subnetIds), [typed.subnetIds]);
  const [now] = useState(() => Date.now());
  const devices = useMemo(() => devicesIn(plan, subnetIds), [plan, subnetIds]);
  const offset = typed.offset || String(span(plan, subnetIds));
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
    keep((all) => ({
      ...all,
      subnetIds: all.subnetIds.includes(id)
        ? all.subnetIds.filter((one) => one !== id)
        : [...all.subnetIds, id],
    }));
  return {
    ...{ subnetIds, toggleSubnet, devices, countText, count, first, by, offset, find, replace },
    ...{ setCount: set('countText'), setFirst: set('first'), setOffset: set('offset') },
    ...{ setFind: set('find'), setReplace: set('replace'), made, newWrong, forget },
    setBy: (next: Begun['by']) => keep((all) => ({ ...all, by: next })),
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
