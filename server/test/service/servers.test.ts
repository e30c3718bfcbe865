import type { WireElsewhere } from '@ipsonomo/core/api';
import { Servers } from '../../src/service/servers';
import type { JobWire } from '../../src/service/job-wire';
import type { ServerRecord } from '../../src/store/server-store';

// What a server writes of its wires is the last in the end, however long one writing takes.

const OWN = { id: 'own', name: 'Hall 1' };

function opened(write: (wires: readonly WireElsewhere[]) => Promise<void>) {
  let answers = 0;
  const status = () => ({ source: 'practice', answeringUntil: 9e15, answers, tasks: [] });
  const wire = { jobId: 'job', listener: undefined };
  const open = [Object.defineProperty(wire, 'status', { get: status }) as unknown as JobWire];
  const row: ServerRecord = { ...OWN, quietFor: 0, hasEnded: false, wires: [] };
  const servers = new Servers({
    own: OWN,
    wires: { open, silence: () => Promise.resolve(), notice: () => undefined } as never,
    store: {
      servers: {
        noteWires: (_id: string, wires: readonly WireElsewhere[]) => write(wires),
        all: () => Promise.resolve([row]),
        seen: () => Promise.resolve(),
        end: () => Promise.resolve(),
      },
    } as never,
    clock: Date.now,
    told: () => undefined,
  });
  return {
    servers,
    change: () => {
      answers += 1;
      servers.wireNews('field');
    },
  };
}

test('a writing that takes long is not overtaken by the next', async () => {
  const written: number[] = [];
  let slow = 900;
  const { servers, change } = opened(async (wires) => {
    const [wire] = wires;
    await new Promise((resolve) => setTimeout(resolve, slow));
    slow = 0;
    written.push(wire?.answers ?? 0);
  });
  change();
  await new Promise((resolve) => setTimeout(resolve, 400));
  change();
  while (written.at(-1) !== 2) await new Promise((resolve) => setTimeout(resolve, 20));
  await new Promise((resolve) => setTimeout(resolve, 700));
  expect(written).toEqual([1, 2]);
  await servers.close();
});
