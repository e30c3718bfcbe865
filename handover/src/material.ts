import {
  interfacesInPart,
  NO_OPTIONS,
  WHOLE_JOB,
  type HandOverOptions,
  type HandOverScope,
} from '@ipsonomo/core/api';
import { progressOf, type Evidence, type Plan } from '@ipsonomo/core/plan';
import { openSnags, snagsOf, type Snag } from '@ipsonomo/core/snags';
import type { PlanPapers } from '@ipsonomo/core/formats';
import type { Material, ProofRecord, Tick } from './format';

export interface MaterialWish {
  readonly job: string;
  readonly revision: number;
  readonly at: number;
  readonly plan: Plan;
  /** The latest of each kind, by the interface. */
  readonly evidence?: ReadonlyMap<string, readonly Evidence[]>;
  readonly person?: string;
  readonly scope?: HandOverScope;
  readonly options?: Partial<HandOverOptions>;
  readonly linkTo?: (interfaceId: string) => string;
  readonly papers?: PlanPapers;
  readonly ticks?: ReadonlyMap<string, Tick>;
  readonly record?: ProofRecord;
}

/** The state of a job as it is handed over. */
export function materialOf(wish: MaterialWish): Material {
  const { plan, scope = WHOLE_JOB, evidence = new Map<string, readonly Evidence[]>() } = wish;
  const chosen = interfacesInPart(plan, scope);
  const ways = new Map(chosen.map((one) => [one.at.id, one]));
  const ids = new Set(chosen.flatMap(({ device, at }) => [device.id, at.id]));
  return {
    ...{ job: wish.job, revision: wish.revision, at: wish.at, plan, chosen },
    person: wish.person ?? '',
    seen: (id) => {
      const seen = evidence.get(id) ?? [];
      const one = ways.get(id);
      const stage = one ? progressOf(one.device.way, one.at, seen).stage : 'planned';
      return { stage, last: seen.at(-1), all: seen };
    },
    snags: openSnags(plan, snagsOf(plan)).filter((snag) => isAbout(snag, ids, plan)),
    ...{ linkTo: wish.linkTo, papers: wish.papers, ticks: wish.ticks, record: wish.record },
    options: { ...NO_OPTIONS, ...wish.options },
  };
}

/** What is wrong with a subnet or the whole is about every part of it. */
const isAbout = ({ type, id }: Snag, ids: ReadonlySet<string>, plan: Plan): boolean =>
  ids.has(id) ||
  (type !== 'device' && type !== 'interface') ||
  !plan.devices.some((one) => one.id === id);
