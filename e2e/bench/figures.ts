import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';

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
export const residentMegabytes = (pid: number): number => statusMegabytes(pid, 'VmRSS');

const statusMegabytes = (pid: number, what: 'VmRSS' | 'VmHWM'): number =>
  Number(new RegExp(`${what}:\\s+(\\d+)`).exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) /
  1024;

/** How much more a process had at its most during an act, by the kernel's own mark (proc(5), VmHWM), in MB. */
export async function mostMegabytesMore(pid: number, act: () => Promise<unknown>): Promise<number> {
  // "5" sets the mark back to what is resident now (proc(5), /proc/pid/clear_refs).
  writeFileSync(`/proc/${pid}/clear_refs`, '5');
  const before = residentMegabytes(pid);
  await act();
  return statusMegabytes(pid, 'VmHWM') - before;
}

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
