import { queryOptions, skipToken } from '@tanstack/react-query';
import { acts, keys, type Key } from '@ipsonomo/contract';
import type {
  HeardView,
  PresentView,
  ProgressView,
  RoundView,
  StationView,
} from '@ipsonomo/core/api';
import { reading } from './act';
import { ask, pathOf, stepsAfter } from './http';
import { keepStep } from './kept-answers';
import { putField, type FieldNow, type Traffic } from './wire-news';

const COUNTED_AGAIN = 1000; // ms

export const jobsQuery = queryOptions({
  ...reading(acts.listJobs, {}),
  // Those that are still being counted are asked for again.
  refetchInterval: ({ state }) =>
    state.data?.some(({ counts }) => counts === null) ? COUNTED_AGAIN : false,
});

export const progressQuery = (id: string) =>
  queryOptions({
    queryKey: keys.progress(id),
    queryFn: ({ client }) => readProgress(id, client.getQueryData<ProgressView>(keys.progress(id))),
    // What is the same stays the same object; to compare thousands thing by thing takes longer.
    structuralSharing: false,
  });

/** Tells the server what this page has already. */
const along = (known: { readonly mark: string } | undefined) =>
  known ? { query: { since: known.mark } } : {};

async function readProgress(job: string, known: ProgressView | undefined): Promise<ProgressView> {
  const news = await ask(acts.readProgress, { job }, along(known));
  if (!known) return (stepsAfter(news) as readonly ProgressView[]).reduce(withNews, news);
  const next = withNews(known, news);
  if (!news.isWhole && news.mark !== known.mark)
    void keepStep(pathOf(acts.readProgress, { job }), news, () => JSON.stringify(next));
  return next;
}

function withNews(known: ProgressView, news: ProgressView): ProgressView {
  if (news.isWhole) return news;
  if (news.mark === known.mark && news.handedOver === known.handedOver) return known;
  return { ...news, seen: { ...known.seen, ...news.seen }, isWhole: true };
}

export const roundQuery = (id: string) =>
  queryOptions({
    queryKey: keys.round(id),
    queryFn: async ({ client }) => {
      const known = client.getQueryData<RoundView>(keys.round(id));
      const read = await ask(acts.readRound, { job: id }, along(known));
      if ('order' in read) return read;
      return known ?? Promise.reject(new Error('a mark of nothing'));
    },
    structuralSharing: false,
  });

/** The edits after a revision, as one list. */
export const editsQuery = (id: string, since: number) =>
  queryOptions({
    queryKey: [...keys.revisions(id), since],
    queryFn: () => ask(acts.readEdits, { job: id }, { query: { since: String(since) } }),
  });

// Wires are told by the event stream; how one stands that nobody has opened yet is read once.

export const fieldQuery = (job: string) =>
  queryOptions<FieldNow>({
    queryKey: keys.field(job),
    queryFn: async ({ client }) => putField(client, await ask(acts.readField, { job })),
    staleTime: Infinity,
  });

const told = <T>(queryKey: Key) => queryOptions<T>({ queryKey, queryFn: skipToken });

export const trafficQuery = (job: string) => told<Traffic>(keys.traffic(job));
export const heardQuery = (job: string) => told<readonly HeardView[]>(keys.heard(job));
export const presentQuery = (job: string) => told<readonly PresentView[]>(keys.present(job));
export const stationsQuery = (job: string) => told<readonly StationView[]>(keys.stations(job));

/** All wires that are open; the news of one of them have them read again. */
export const wiresQuery = { ...reading(acts.listWires, {}), staleTime: Infinity };

export const adaptersQuery = { ...reading(acts.listAdapters, {}), refetchInterval: 2000 };

export const cabinetQuery = (job: string) => ({
  ...reading(acts.readCabinet, { job }),
  refetchInterval: 700,
});
