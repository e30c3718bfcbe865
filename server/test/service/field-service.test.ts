import { must, parsePrefix, toPlan, toSubnet, type Plan } from '@ipsonomo/core';
import type { Field } from '../../src/field/field';
import type { Practice } from '../../src/field/practice';
import { IDLE, type FieldCommand } from '../../src/field/protocol';
import { FieldService } from '../../src/service/field-service';
import type { Store } from '../../src/store/store';

// What the wire is told and in which order, with a store that answers when the test lets it.

const planNamed = (id: string): Plan =>
  toPlan({ subnets: [toSubnet({ id, name: id, prefix: must(parsePrefix('10.0.0.0/24')) })] });

function open() {
  const told: string[] = [];
  const reads: ((plan: Plan | Error) => void)[] = [];
  const field = {
    status: { ...IDLE, jobId: 'job' },
    call: (command: FieldCommand) => {
      told.push(command.kind === 'plan' ? `plan ${command.plan.subnets[0]?.id}` : command.kind);
      return Promise.resolve();
    },
  };
  const store = {
    plan: () =>
      new Promise<Plan>((resolve, reject) =>
        reads.push((plan) => (plan instanceof Error ? reject(plan) : resolve(plan))),
      ),
    latestEvidence: () => Promise.resolve(new Map()),
  };
  const service = new FieldService(
    field as unknown as Field,
    store as unknown as Store,
    {} as Practice,
    Date.now,
  );
  return { service, told, reads };
}

const turnOfEvents = () => new Promise((resolve) => setImmediate(resolve));

test('an older plan never reaches the wire after a newer one', async () => {
  const { service, told, reads } = open();
  const both = [service.planChanged('job'), service.planChanged('job')];
  await turnOfEvents();
  // The second is not even read before the first was told.
  expect(reads).toHaveLength(1);
  reads[0]?.(planNamed('older'));
  await turnOfEvents();
  reads[1]?.(planNamed('newer'));
  await Promise.all(both);
  expect(told).toEqual(['plan older', 'plan newer']);
});

test('a plan that cannot be read silences the wire, and the next one is told all the same', async () => {
  const { service, told, reads } = open();
  const failing = service.planChanged('job');
  const next = service.planChanged('job');
  await turnOfEvents();
  reads[0]?.(new Error('away'));
  await expect(failing).rejects.toThrow('away');
  await turnOfEvents();
  reads[1]?.(planNamed('newer'));
  await next;
  expect(told).toEqual(['silence', 'plan newer']);
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
    await service.arm(10, { name: 'Mara Quist' }, armed);
    for (let seconds = 0; seconds < 60; seconds += 5) {
      jest.advanceTimersByTime(5000);
      service.here(there);
    }
    expect(told).toEqual(['arm', ...expected]);
  });

  test('fell silent itself: its absence ends nothing more', async () => {
    const { service, told } = open();
    await service.arm(10, { name: 'Mara Quist' }, 'aaaaaaaa');
    await service.silence();
    jest.advanceTimersByTime(60_000);
    expect(told).toEqual(['arm', 'silence']);
  });
});
