import { must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { toDevice, toInterface, toPlan, toSubnet, type Plan } from '@ipsonomo/core/plan';
import { IDLE, Notices, type FieldCommand, type FieldTarget } from '../../../wire/src/protocol';
import { machineActor } from '../../src/service/actor';
import { JobWire } from '../../src/service/job-wire';
import type { WireThreads } from '../../src/service/wire-threads';
import type { Store } from '../../src/store/store';

// What the wire is told and in which order, with a store that answers when the test lets it.

const MARA = machineActor('Mara Quist');

const planNamed = (id: string): Plan =>
  toPlan({ subnets: [toSubnet({ id, name: id, prefix: must(parsePrefix('10.0.0.0/24')) })] });

function open() {
  const told: string[] = [];
  const targets: FieldTarget[] = [];
  const reads: ((plan: Plan | Error) => void)[] = [];
  const field = {
    status: { ...IDLE, source: 'practice', jobId: 'job', runId: 'run' },
    call: (command: FieldCommand) => {
      told.push(command.kind === 'plan' ? `plan ${command.plan.subnets[0]?.id}` : command.kind);
      if (command.kind === 'plan') targets.push(...command.plan.targets);
      return Promise.resolve();
    },
  };
  const store = {
    plan: () =>
      new Promise<Plan>((resolve, reject) =>
        reads.push((plan) => (plan instanceof Error ? reject(plan) : resolve(plan))),
      ),
    evidence: { latest: () => Promise.resolve({ place: 0, byInterface: new Map() }) },
  };
  const threads = { field, close: () => Promise.resolve() } as unknown as WireThreads;
  const service = new JobWire('job', {
    store: store as unknown as Store,
    clock: Date.now,
    told: () => undefined,
    practiceFirst: () => false,
    isRehearsal: () => false,
    take: () => Promise.resolve(),
    begin: () => Promise.resolve(threads),
  });
  Reflect.set(service, 'threads', threads);
  return { service, told, targets, reads };
}

const turnOfEvents = () => new Promise((resolve) => setImmediate(resolve));

test('an older plan never reaches the wire after a newer one', async () => {
  const { service, told, reads } = open();
  const both = [service.planChanged(), service.planChanged()];
  await turnOfEvents();
  // The second is not even read before the first was told.
  expect(reads).toHaveLength(1);
  reads[0]?.(planNamed('older'));
  await turnOfEvents();
  reads[1]?.(planNamed('newer'));
  await Promise.all(both);
  expect(told).toEqual(['plan older', 'plan newer']);
});

test('a plan that the wire cannot be told silences it and says so; what was changed is no error, and it is told before it answers again', async () => {
  const { service, told, reads } = open();
  const failing = service.planChanged();
  const next = service.planChanged();
  await turnOfEvents();
  reads[0]?.(new Error('away'));
  await failing;
  expect(service.view(new Notices(() => undefined)).notices).toMatchObject([
    { code: 'plan-untold', facts: { why: 'away' }, stays: true },
  ]);
  await turnOfEvents();
  reads[1]?.(planNamed('newer'));
  await next;
  expect(told).toEqual(['silence', 'plan newer']);

  const again = service.planChanged();
  await turnOfEvents();
  reads[2]?.(new Error('away'));
  await again;
  const arming = service.arm(1, MARA);
  await turnOfEvents();
  reads[3]?.(planNamed('newest'));
  await arming;
  expect(told.slice(2)).toEqual(['silence', 'plan newest', 'arm']);
});

test('R-LOAN: when a loan is over the wire is told the plan anew, with the planned address', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate'] });
  const now = Date.now();
  const subnets = [
    toSubnet({ id: 'hall', name: 'hall', prefix: must(parsePrefix('10.0.0.0/24')) }),
  ];
  const fields = {
    id: 'at',
    deviceId: 'drive',
    subnetId: 'hall',
    address: must(parseIpv4('10.0.0.5')),
  };
  const loan = { address: must(parseIpv4('10.0.0.9')), until: now + 60_000 };
  const names = {
    id: 'drive',
    title: 'Drive',
    name: 'drive',
    kindId: 'none',
    way: 'bootp',
  } as const;
  const device = { ...toDevice(names), interfaces: [toInterface({ ...fields, loan })] };
  const { service, told, targets, reads } = open();
  void service.planChanged();
  await turnOfEvents();
  reads[0]?.(toPlan({ subnets, devices: [device] }));
  await turnOfEvents();
  jest.advanceTimersByTime(59_000);
  await turnOfEvents();
  expect(reads).toHaveLength(1);
  jest.advanceTimersByTime(2000);
  await turnOfEvents();
  reads[1]?.(toPlan({ subnets, devices: [device] }));
  await turnOfEvents();
  jest.useRealTimers();
  expect(told).toEqual(['plan hall', 'plan hall']);
  expect(targets).toMatchObject([
    { address: loan.address, lentUntil: loan.until, holds: false },
    { address: fields.address, lentUntil: undefined },
  ]);
});

describe('R-PAGE: the browser that let it answer', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  test.each([
    ['is there every five seconds', 'aaaaaaaa', 'aaaaaaaa', []],
    ['is away for half a minute', 'aaaaaaaa', undefined, ['page-lost']],
    ['is away, and another one is there', 'aaaaaaaa', 'bbbbbbbb', ['page-lost']],
    ['is none: a command line', undefined, undefined, []],
  ])('%s', async (_what, armed, there, expected) => {
    const { service, told } = open();
    await service.arm(10, { ...MARA, browser: armed });
    for (let seconds = 0; seconds < 60; seconds += 5) {
      jest.advanceTimersByTime(5000);
      service.here(there);
    }
    expect(told).toEqual(['arm', ...expected]);
  });

  test('fell silent itself: its absence ends nothing more', async () => {
    const { service, told } = open();
    await service.arm(10, { ...MARA, browser: 'aaaaaaaa' });
    await service.silence();
    jest.advanceTimersByTime(60_000);
    expect(told).toEqual(['arm', 'silence']);
  });
});
