import { threadClock, type CallOff, type Conducted } from '@ipsonomo/core/clock';
import { PLATFORM } from '@ipsonomo/threads';
import { parentPort, workerData } from 'node:worker_threads';
import type { Carrier, CarrierEvents } from './carriers/carrier';
import { FieldEngine } from './engine/engine';
import {
  type FieldCall,
  type FieldCommand,
  type FieldError,
  type FieldPlan,
  FieldRefusal,
  type FieldReport,
  HeardChanges,
  IDLE,
  planAfterNews,
} from './protocol';
import { borrowedFile, Borrowings } from './carriers/linux/borrowed';
import { LiveCarrier } from './carriers/linux/live-carrier';
import { openPracticeCarrier } from './carriers/practice/practice-carrier';

// The thread of the wire: frames never wait for a web page or the database.

const owner = parentPort;
if (!owner) throw new Error('the field runs in a worker thread');
const { folder, name, conducted } = workerData as {
  readonly folder: string;
  readonly name: string;
  readonly conducted: Conducted | undefined;
};

const clock = threadClock(PLATFORM, conducted);
const report = (one: FieldReport): void => owner.postMessage(one);
/** A screen needs news a few times a second, not with every frame. */
const REPORT_EVERY = 150;

let engine: FieldEngine | undefined;
let plan: FieldPlan | undefined;
let callOff: CallOff = () => undefined;
let reporting: NodeJS.Timeout | undefined;
const changes = new HeardChanges();
let stationsChanged = false;
let presentChanged = false;

const borrowings = new Borrowings(borrowedFile(folder, name));
const undone = borrowings.undoLeftOver();

let scheduledFor = Infinity;

function schedule(): void {
  const next = engine?.nextAt() ?? Infinity;
  if (next === scheduledFor) return;
  callOff();
  scheduledFor = next;
  if (next === Infinity) return;
  callOff = clock.after(next - clock.now(), () => {
    scheduledFor = Infinity;
    engine?.run(clock.now());
    schedule();
  });
}

let scheduled = false;

/** One look at the clock for all that happened together. */
function scheduleSoon(): void {
  if (scheduled) return;
  scheduled = true;
  setImmediate(() => {
    scheduled = false;
    schedule();
  });
}

function reportSoon(): void {
  reporting ??= setTimeout(() => {
    reporting = undefined;
    if (engine) report({ kind: 'status', status: engine.status() });
    reportHeard();
    reportStations();
    reportPresent();
  }, REPORT_EVERY);
}

let events = '';
let isTogether = false;

function reportEvents(): void {
  if (events !== '') report({ kind: 'events', lines: events });
  events = '';
}

/** What is seen in one go is told in one go; also where it is the last that is seen. */
function saidTogether(act: () => void): void {
  isTogether = true;
  try {
    act();
  } finally {
    isTogether = false;
    reportEvents();
  }
}

function reportHeard(): void {
  const change = changes.drain();
  if (change) report({ kind: 'heard', ...change });
}

function reportStations(): void {
  if (!stationsChanged) return;
  stationsChanged = false;
  report({ kind: 'stations', stations: engine?.foundStations() ?? [] });
}

function reportPresent(): void {
  if (!presentChanged) return;
  presentChanged = false;
  report({ kind: 'present', present: engine?.seen ?? [] });
}

function open(start: (events: CarrierEvents) => Carrier): void {
  engine?.close();
  engine = undefined;
  let link: Parameters<CarrierEvents['link']>[0] = 'up';
  const carrier = start({
    frame(frame) {
      engine?.frame(frame);
      scheduleSoon();
    },
    together(take) {
      if (engine) saidTogether(() => engine?.together(take));
      else take();
    },
    link(state) {
      link = state;
      engine?.linkChanged(state);
      scheduleSoon();
    },
  });
  engine = new FieldEngine(carrier, clock, folder, {
    // A text is handed over much quicker than what it tells.
    events(_events, lines) {
      events += lines;
      if (!isTogether) reportEvents();
    },
    heard(client) {
      changes.add({ clients: [client] });
      reportSoon();
    },
    forgot(mac) {
      changes.add({ forgotten: [mac] });
      reportSoon();
    },
    stations() {
      stationsChanged = true;
      reportSoon();
    },
    vigil: (ring) => report({ kind: 'vigil', vigil: ring.shared }),
    present() {
      presentChanged = true;
      reportSoon();
    },
    changed() {
      reportSoon();
      scheduleSoon(); // a conversation goes on while its command is not yet answered
    },
  });
  engine.linkChanged(link);
  if (plan) engine.plan(plan);
  reportSoon();
}

function needed(): FieldEngine {
  if (!engine) throw FieldRefusal.of('field.noWire');
  return engine;
}

type Of<K extends FieldCommand['kind']> = Extract<FieldCommand, { readonly kind: K }>;

/** What is done at each command: the compiler asks for one that is missing. Whatever is refused is answered as it is. */
const COMMANDS: {
  readonly [K in FieldCommand['kind']]: (command: Of<K>) => unknown;
} = {
  'open-practice': ({ port, source }) =>
    open((events) => openPracticeCarrier(port, source, events)),
  'open-live': async ({ adapter }) => {
    if (conducted) throw FieldRefusal.of('field.hastened');
    await undone;
    open((events) => new LiveCarrier(adapter, borrowings, events));
  },
  plan: ({ plan: news }) => {
    plan = planAfterNews(plan, news);
    engine?.plan(plan);
  },
  listen: ({ runId }) => {
    needed().listen(runId);
    // What another run heard, and nobody was told yet, is nobody's business any more.
    changes.add({ all: true, clients: needed().heardClients() });
    reportHeard();
  },
  // What ends or forgets something is no trouble where nothing goes on.
  rest: () => engine?.rest(),
  silence: () => engine?.silence(),
  'page-lost': () => engine?.pageLost(),
  'notice-read': ({ code, at }) => engine?.notices.read(code, at),
  'close-page': () => engine?.closePage(),
  'prove-stop': () => engine?.acts.stopProof(),
  'vigil-stop': () => engine?.acts.stopVigil(),
  arm: ({ millis, person }) => needed().arm(millis, person),
  'one-device': ({ mac }) => needed().acts.oneDevice(mac),
  check: ({ interfaceIds, person }) => needed().acts.check(interfaceIds, person),
  'watch-power': (command) => needed().acts.watchPower(command),
  pin: (command) => needed().acts.pin(command),
  walk: ({ interfaceId, subnetId, person }) => needed().acts.walkTo(interfaceId, subnetId, person),
  follow: ({ interfaceId, person }) => needed().acts.follow(interfaceId, person),
  'open-page': ({ interfaceId, person }) => needed().acts.openPage(interfaceId, person),
  // It lasts as long as the browser's connection; nobody waits for it.
  converse: ({ port }) => void needed().acts.converse(port),
  drill: ({ step, person }) => needed().acts.drill(step, person),
  prove: (command) => needed().acts.prove(command),
  'read-register': (command) => needed().acts.readRegister(command),
  'ask-path': (command) => needed().acts.askPath(command),
  vigil: (command) => needed().acts.vigil(command),
  sweep: () => needed().acts.sweep(),
  search: () => needed().acts.stations.search(),
  flash: ({ mac }) => needed().acts.stations.flash(mac),
  'give-station': (command) => needed().acts.giveStation(command, command.giving),
  'reset-station': (command) => needed().acts.resetStation(command, command.reason),
};

/** @throws FieldRefusal where it cannot be done */
async function obey<K extends FieldCommand['kind']>(command: Of<K>): Promise<void> {
  await COMMANDS[command.kind as K](command);
}

/** What a person is told; what nobody foresaw ends the thread, which is then started anew. */
function refusalOf(error: unknown): FieldError {
  if (error instanceof FieldRefusal) return error.told;
  if (error instanceof Error && 'syscall' in error)
    return { code: 'field.noJournal', facts: { why: error.message } };
  throw error;
}

owner.on('message', ({ id, command }: FieldCall) => {
  obey(command)
    // The status first, so that whoever waited for the answer already sees what it did.
    .finally(() => report({ kind: 'status', status: engine?.status() ?? IDLE }))
    .then(() => report({ kind: 'answer', id, error: undefined }))
    .catch((error: unknown) => {
      report({ kind: 'answer', id, error: refusalOf(error) });
    })
    .finally(schedule);
});
