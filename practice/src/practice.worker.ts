import { parentPort, workerData, type MessagePort } from 'node:worker_threads';
import type { CabinetAction, CabinetView } from '@ipsonomo/core/api';
import { threadClock, type CallOff, type Conducted } from '@ipsonomo/core/clock';
import { rehearsedSite, type RehearsedPlan } from './rehearsal/rehearsed-plan';
import { seeded } from './seeded';
import { PracticeSite } from './site';
import { TERN_COVE } from './tern-cove';

/** What the owner of the worker may say. Frames travel on a port of their own. */
export type PracticeCommand =
  | { readonly kind: 'wire'; readonly port: MessagePort }
  | { readonly kind: 'right'; readonly mistake: string }
  | { readonly kind: 'act'; readonly id: number; readonly action: CabinetAction | undefined };

export interface PracticeReport {
  readonly id: number;
  readonly view: CabinetView;
}

const owner = parentPort;
if (!owner) throw new Error('the practice site runs in a worker thread');

const clock = threadClock<NodeJS.Timeout>(
  {
    now: () => performance.timeOrigin + performance.now(),
    setTimeout: (act, millis) => setTimeout(act, millis),
    clearTimeout: (timer) => clearTimeout(timer),
    settle: (done) => void setImmediate(done),
  },
  (workerData as { readonly conducted: Conducted | undefined }).conducted,
);
const { rehearsed } = workerData as { readonly rehearsed: RehearsedPlan | undefined };
const now = (): number => clock.now();
let wire: MessagePort | undefined;
let callOff: CallOff = () => undefined;

const site = PracticeSite.thatIsUp(
  rehearsed ? rehearsedSite(rehearsed) : TERN_COVE,
  rehearsed ? seeded(rehearsed.seed) : Math.random,
  (frame) => wire?.postMessage(frame.slice()),
  now(),
);

for (const mistake of rehearsed?.found ?? []) site.putRight(mistake, now());

function schedule(): void {
  callOff();
  const next = site.nextAt();
  if (next === Infinity) return;
  callOff = clock.after(next - now(), () => {
    site.run(now());
    schedule();
  });
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
  if (command.kind === 'right') {
    site.putRight(command.mistake, now());
    schedule();
    return;
  }
  if (command.action) site.act(command.action, now());
  schedule();
  owner.postMessage({ id: command.id, view: site.view(now()) } satisfies PracticeReport);
});

schedule();
