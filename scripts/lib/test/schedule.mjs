// Runs steps at once as far as they may: those of one lane one after the other, lanes beside each other.
import { spawn } from 'node:child_process';
import { createWriteStream, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { ROOT } from '../steps.mjs';

/** A step that hangs is ended: nothing in it takes as long, whatever else the machine does. */
const LONGEST = 40 * 60_000 * Number(process.env.IPSONOMO_SOAK ?? 1);
/** How long output may still come once a command has ended: what it left behind may hold its pipes. */
const LAST_WORDS = 2000;
const TICKS_A_SECOND = 100; // of what /proc tells: Linux, USER_HZ

/** Processor seconds of all children that have ended, and of theirs. */
export function childrenSeconds() {
  if (!existsSync('/proc/self/stat')) return 0;
  const fields = readFileSync('/proc/self/stat', 'utf8')
    .replace(/^.*\) /, '')
    .split(' ');
  return (Number(fields[13]) + Number(fields[14])) / TICKS_A_SECOND;
}

/**
 * What all cores of the machine have done so far, in seconds: a browser's processes outlive whoever started them and are in
 * nobody's account, so this is what a run really took, with all else that went on.
 * @returns {{ busy: number, idle: number, stolen: number } | undefined}
 */
export function machineSeconds() {
  if (!existsSync('/proc/stat')) return undefined;
  const [user, nice, system, idle, waiting, , , stolen] = readFileSync('/proc/stat', 'utf8')
    .split('\n')[0]
    .split(/\s+/)
    .slice(1)
    .map((ticks) => Number(ticks) / TICKS_A_SECOND);
  return { busy: user + nice + system, idle: idle + waiting, stolen };
}

let accounted = 0;

/** What has been added since it was asked last: the child that has ended just now. */
function newSeconds() {
  const before = accounted;
  accounted = childrenSeconds();
  return accounted - before;
}

/** What is under way, to be ended with this script. */
const running = new Set();

function end(child, signal) {
  try {
    process.kill(-child.pid, signal);
  } catch {
    // It ended by itself meanwhile.
  }
}

export const endAll = (signal) => running.forEach((child) => end(child, signal));

/**
 * Runs a command to its end, its output into a file and, where asked, shown as it comes. Its group ends with it.
 * @returns {Promise<{ isOk: boolean, seconds: number, processor: number, log: string }>}
 */
export function runInto(file, [command, ...args], { env = {}, show = false } = {}) {
  mkdirSync(dirname(file), { recursive: true });
  const log = createWriteStream(file);
  const start = Date.now();
  newSeconds();
  const child = spawn(command, args, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true,
  });
  running.add(child);
  const heard = (out) => (data) => {
    log.write(data);
    if (show) out.write(data);
  };
  child.stdout.on('data', heard(process.stdout));
  child.stderr.on('data', heard(process.stderr));
  const tooLong = setTimeout(() => {
    log.write(`\nended after ${LONGEST / 60_000} minutes\n`);
    end(child, 'SIGKILL');
  }, LONGEST);
  return new Promise((resolve) => {
    const over = (isOk) => {
      clearTimeout(tooLong);
      running.delete(child);
      const figures = { seconds: (Date.now() - start) / 1000, processor: newSeconds() };
      const closed = () => log.end(() => resolve({ isOk, ...figures, log: file }));
      const patience = setTimeout(closed, LAST_WORDS);
      child.once('close', () => {
        clearTimeout(patience);
        closed();
      });
    };
    child.once('exit', (code) => {
      end(child, 'SIGKILL');
      over(code === 0);
    });
    child.once('error', (error) => {
      log.write(`${error.message}\n`);
      over(false);
    });
  });
}

/**
 * @param steps { name, lane, after?: names of earlier ones that have to have gone well, run }
 * @param told called with each step and what came of it
 * @returns what came of each: { isOk, … } as its `run` resolves, or { isOk: false, missing: name }
 */
export function runSteps(steps, told) {
  const results = new Map();
  const lastOf = new Map();
  for (const step of steps) {
    const before = lastOf.get(step.lane);
    const needed = (step.after ?? []).filter((name) => results.has(name));
    const done = (async () => {
      await before;
      const states = await Promise.all(needed.map((name) => results.get(name)));
      const at = states.findIndex(({ isOk }) => !isOk);
      const result = at < 0 ? await step.run() : { isOk: false, missing: needed[at] };
      told(step, result);
      return result;
    })();
    results.set(step.name, done);
    lastOf.set(step.lane, done);
  }
  return Promise.all(results.values());
}
