import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** One line of the bench: what was measured, ours beside a reference, and what is wanted. */
export interface Figure {
  readonly what: string;
  readonly ours: string;
  /** The same of something else in the same run; empty where nothing is installed for it. */
  readonly reference: string;
  readonly wanted: string;
  readonly isReached: boolean;
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  const upper = sorted[middle] ?? NaN;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? NaN) + upper) / 2;
}

export function percentile(values: readonly number[], part: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? NaN;
}

/** The figures as a Markdown table. */
export const table = (figures: readonly Figure[]): string =>
  [
    '| what | Ipsonomo | reference, same run | to reach | reached |',
    '|---|---|---|---|---|',
    ...figures.map(
      ({ what, ours, reference, wanted, isReached }) =>
        `| ${what} | ${ours} | ${reference || '–'} | ${wanted} | ${isReached ? 'yes' : 'NO'} |`,
    ),
  ].join('\n');

/** What a process holds in memory. */
export const residentMegabytes = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

/** Beside so many processes that never rest: a machine that has other work. */
export async function besideLoad<T>(processes: number, act: () => Promise<T>): Promise<T> {
  const load = Array.from({ length: processes }, () =>
    spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }),
  );
  try {
    return await act();
  } finally {
    for (const one of load) one.kill('SIGKILL');
  }
}

/** As many as the figures for a loaded machine are meant for. */
export const LOAD = 6;
