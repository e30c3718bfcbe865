import { parentPort, type MessagePort } from 'node:worker_threads';
import type { CabinetAction, CabinetView } from '@ipsonomo/core';
import { PracticeSite } from './site';
import { TERN_COVE } from './tern-cove';

/** What the owner of the worker may say. Frames travel on a port of their own. */
export type PracticeCommand =
  | { readonly kind: 'wire'; readonly port: MessagePort }
  | { readonly kind: 'act'; readonly id: number; readonly action: CabinetAction | undefined };

export interface PracticeReport {
  readonly id: number;
  readonly view: CabinetView;
}

const owner = parentPort;
if (!owner) throw new Error('the practice site runs in a worker thread');

const now = (): number => performance.timeOrigin + performance.now();
let wire: MessagePort | undefined;
let timer: NodeJS.Timeout | undefined;

const site = new PracticeSite(
  TERN_COVE,
  Math.random,
  (frame) => wire?.postMessage(frame.slice()),
  now(),
);

function schedule(): void {
  clearTimeout(timer);
  const next = site.nextAt();
  if (next === Infinity) return;
  timer = setTimeout(
    () => {
      site.run(now());
      schedule();
    },
    Math.max(0, next - now()),
  );
}

owner.on('message', (command: PracticeCommand) => {
  if (command.kind === 'wire') {
    wire = command.port;
    wire.on('message', (frame: Uint8Array) => {
      site.fromLaptop(frame, now());
      schedule();
    });
    return;
  }
  if (command.action) site.act(command.action, now());
  schedule();
  owner.postMessage({ id: command.id, view: site.view(now()) } satisfies PracticeReport);
});

schedule();
