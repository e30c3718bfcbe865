import { NAME_WORDS, REVISION_WORDS } from '@ipsonomo/language/kept';
import { isDeepStrictEqual } from 'node:util';
import type { KindElsewhere, KindsElsewhere, KindsTaken } from '@ipsonomo/core/api';
import { readPlanFile, writePlanFile, type PlanPapers } from '@ipsonomo/core/formats';
import { docFromThings, type PlanDoc, type ThingDoc } from '@ipsonomo/core/plan';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { PlanChanger } from './change-plan';
import { papersOf, type Papers } from './papers';

// R-KINDS-SHARED: kinds of a plan's own go from job to job: as a plan file that holds nothing else, or straight from a
// job of the same installation. What a plan has already under the same id is never overwritten by it.

/** The kinds of a job's plan as a file of their own, with their papers. */
export async function kindsFile(
  store: Store,
  papers: Papers,
  jobId: string,
): Promise<{ readonly name: string; readonly text: string }> {
  const [{ name }, { doc }, held] = await Promise.all([
    store.job(jobId),
    store.planState(jobId),
    papers.forFile(jobId),
  ]);
  const kinds = docFromThings([...doc.kind.values()].map((thing) => ['kind', thing] as const));
  return {
    name: NAME_WORDS.kindsFile({ job: name }),
    text: writePlanFile({ name: NAME_WORDS.kindsOf({ job: name }), doc: kinds, papers: held }),
  };
}

/** What other jobs have that this one has not. */
export async function kindsElsewhere(
  store: Store,
  jobId: string,
): Promise<readonly KindsElsewhere[]> {
  const [{ doc }, others] = await Promise.all([store.planState(jobId), store.kindsOfOthers(jobId)]);
  return others.flatMap(({ id, name, kinds }) => {
    const offered = kinds.flatMap((kind) => offerOf(doc, kind));
    return offered.length > 0 ? [{ job: id, name, kinds: offered }] : [];
  });
}

function offerOf(doc: PlanDoc, kind: ThingDoc): readonly KindElsewhere[] {
  const mine = doc.kind.get(kind.id);
  if (mine && isDeepStrictEqual(mine, kind)) return [];
  const said = (field: string) => String(kind[field] ?? '');
  return [
    {
      ...{ id: kind.id, maker: said('maker'), name: said('name') },
      ...{ orderNumber: said('orderNumber'), revision: said('revision') },
      state: mine ? 'other' : 'new',
    },
  ];
}

interface Taker {
  readonly store: Store;
  readonly papers: Papers;
  readonly changer: PlanChanger;
}

/** Takes kinds of another job. @param ids of those that are wanted */
export async function takeKinds(
  { store, papers, changer }: Taker,
  jobId: string,
  wanted: { readonly from: string; readonly kinds: readonly string[] },
  actor: Actor,
): Promise<KindsTaken> {
  const [{ name }, { doc }] = await Promise.all([
    store.job(wanted.from),
    store.planState(wanted.from),
  ]);
  const kinds = wanted.kinds.map((id) => {
    const kind = doc.kind.get(id);
    if (!kind) throw Refusal.of('thing.unknown', 'kind');
    return kind;
  });
  const taker = { store, papers, changer };
  const from = { name, kinds, papers: await papers.forFile(wanted.from) };
  return take(taker, jobId, from, actor);
}

/** Takes the kinds of a plan file, and nothing else that it holds. */
export async function takeKindsFromFile(
  taker: Taker,
  jobId: string,
  text: string,
  actor: Actor,
): Promise<KindsTaken> {
  const read = readPlanFile(text);
  if (!read.ok) throw new Refusal(read.error);
  const { name, doc, papers } = read.value;
  return take(taker, jobId, { name, kinds: [...doc.kind.values()], papers }, actor);
}

interface Offered {
  readonly name: string;
  readonly kinds: readonly ThingDoc[];
  readonly papers: PlanPapers;
}

async function take(
  { store, papers, changer }: Taker,
  jobId: string,
  from: Offered,
  actor: Actor,
): Promise<KindsTaken> {
  const { doc } = await store.planState(jobId);
  const { kinds } = from;
  const added = kinds.filter(({ id }) => !doc.kind.has(id));
  const kept = kinds.filter((kind) => {
    const mine = doc.kind.get(kind.id);
    return mine && !isDeepStrictEqual(mine, kind);
  });
  if (added.length > 0) {
    const needed = new Set(added.flatMap(paperIds));
    await papers.takeFromFile(
      jobId,
      papersOf(new Map([...from.papers].filter(([id]) => needed.has(id)))),
    );
    const edits = added.map((thing) => ({ op: 'add', type: 'kind', thing }) as const);
    await changer.write(
      jobId,
      edits,
      REVISION_WORDS.tookKinds({ count: added.length, job: from.name }),
      actor,
    );
  }
  return { taken: added.length, kept: kept.map((kind) => String(kind['name'])) };
}

const paperIds = ({ papers }: ThingDoc): readonly string[] =>
  Array.isArray(papers) ? papers.map((one) => String((one as ThingDoc).id)) : [];
