import type { HeardClient } from '@ipsonomo/core/answering';
import { HeardChanges } from '../src/protocol';
import { DRIVE, STRANGER } from './bench';

const client = (mac: HeardClient['mac'], count: number) => ({ mac, count }) as HeardClient;

test('told once, with the last word of each; forgotten and heard again is heard', () => {
  const changes = new HeardChanges();
  expect(changes.drain()).toBeUndefined();
  changes.add({ clients: [client(DRIVE, 1), client(STRANGER, 1)] });
  changes.add({ clients: [client(DRIVE, 2)], forgotten: [STRANGER] });
  expect(changes.drain()).toEqual({
    all: false,
    clients: [client(DRIVE, 2)],
    forgotten: [STRANGER],
  });
  changes.add({ forgotten: [STRANGER] });
  changes.add({ clients: [client(STRANGER, 1)] });
  expect(changes.drain()).toMatchObject({ clients: [client(STRANGER, 1)], forgotten: [] });
  expect(changes.drain()).toBeUndefined();
});

test('a new run makes what an earlier one heard void', () => {
  const changes = new HeardChanges();
  changes.add({ clients: [client(DRIVE, 7)] });
  changes.add({ all: true, clients: [] });
  expect(changes.drain()).toEqual({ all: true, clients: [], forgotten: [] });
});
