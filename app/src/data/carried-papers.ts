import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { browserDatabase } from './browser-store';
import { paperPath } from './kinds';

// Papers of kinds that somebody takes along: at a cabinet without a network they are opened from this browser's own disk.

interface Named {
  /** SHA-256 of its bytes: the same paper of two kinds, or jobs, is carried once. */
  readonly id: string;
  readonly name: string;
}

/** What a browser shows; anything else it saves, and nothing of it is run. */
const SHOWN = ['application/pdf', 'image/png', 'image/jpeg'];
const SAVED = 'application/octet-stream';

/** The bytes of each paper that is carried, by its id. */
async function sizes(): Promise<ReadonlyMap<string, number>> {
  const known = await browserDatabase();
  const all = new Map<string, number>();
  // One after the other: all of them at once would be in memory.
  for (let at = await known?.transaction('papers').store.openCursor(); at; at = await at.continue())
    all.set(at.key, at.value.bytes.byteLength);
  return all;
}

/** @throws where it is not answered, or this browser has no room */
export async function carryPaper(job: string, paper: Named): Promise<void> {
  const known = await browserDatabase();
  if (!known) throw new Error('this browser keeps nothing');
  const answer = await fetch(paperPath(job, paper));
  if (!answer.ok) throw new Error(String(answer.status));
  const told = (answer.headers.get('content-type') ?? '').split(';')[0] ?? '';
  const type = SHOWN.includes(told) ? told : SAVED;
  await known.put('papers', { bytes: await answer.arrayBuffer(), type }, paper.id);
}

export async function letGoOfPaper({ id }: Named): Promise<void> {
  await (await browserDatabase())?.delete('papers', id);
}

/** Where a paper that is carried is opened; undefined where it is not. */
export async function carriedUrl({ id }: Named): Promise<string | undefined> {
  const paper = await (await browserDatabase())?.get('papers', id);
  return paper && URL.createObjectURL(new Blob([paper.bytes], { type: paper.type }));
}

const KEY = ['carried-papers'];

/** The bytes of each paper that is carried; undefined until the browser has said. */
export const useCarried = (): ReadonlyMap<string, number> | undefined =>
  useQuery({ queryKey: KEY, queryFn: sizes, structuralSharing: false }).data;

/** Takes papers along, or leaves them. @returns of the act how many could not be taken */
export function useCarry(job: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({
      papers,
      takes,
    }: {
      readonly papers: readonly Named[];
      readonly takes: boolean;
    }) => {
      let failed = 0;
      for (const paper of papers)
        await (takes ? carryPaper(job, paper) : letGoOfPaper(paper)).catch(() => (failed += 1));
      return failed;
    },
    onSettled: () => client.invalidateQueries({ queryKey: KEY }),
  });
}
