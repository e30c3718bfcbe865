import type { StateView } from '@ipsonomo/contract';
import { BroadcastChannel } from 'broadcast-channel';
import { SharedStream, type Parts, type SourceListener } from '../../src/data/shared-stream';

// Tabs of one browser, on a channel in memory, before a server that counts its streams.

class FakeServer {
  readonly streams = new Set<SourceListener>();
  readonly asked: (string | undefined)[] = [];
  number = 0;
  greeted = 0;
  era = 'a';
  state: StateView['news'] = [['field', 0]];

  open = (since: string | undefined, listener: SourceListener) => {
    this.streams.add(listener);
    this.asked.push(since);
    const isWhole = since === undefined || !since.startsWith(this.era);
    setTimeout(() => {
      listener.news({ id: this.id(), name: 'hello', data: { isWhole } });
      this.greeted += 1;
    }, 1);
    return { close: () => void this.streams.delete(listener) };
  };

  id = () => `${this.era}-${this.number}`;

  tell(data: unknown): void {
    this.number += 1;
    this.state = [['field', data]];
    for (const one of this.streams) one.news({ id: this.id(), name: 'field', data });
  }
}

class Tab {
  readonly seen: unknown[] = [];
  missed = 0;
  since: number | undefined;
  readonly stream: SharedStream;

  constructor(server: FakeServer, name: string) {
    const parts: Parts = {
      openChannel: () => new BroadcastChannel(name, { type: 'simulate' }),
      open: server.open,
      readState: () => Promise.resolve({ id: server.id(), news: server.state }),
    };
    this.stream = new SharedStream(parts, {
      news: (_name, data) => void this.seen.push(data),
      missed: () => (this.missed += 1),
      away: (since) => (this.since = since),
    });
    this.stream.start();
  }
}

let name = 0;
let tabs: Tab[] = [];
afterEach(async () => {
  await Promise.all(tabs.map((tab) => tab.stream.close()));
  tabs = [];
});

const open = (server: FakeServer, count: number): Tab[] => {
  name += 1;
  tabs = Array.from({ length: count }, () => new Tab(server, `tabs-${name}`));
  return tabs;
};

const until = async (holds: () => boolean) => {
  const end = Date.now() + 20_000;
  while (!holds()) {
    if (Date.now() > end) throw new Error('waited in vain');
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
};

test('five tabs have one stream, and all hear the same, each piece once', async () => {
  const server = new FakeServer();
  const all = open(server, 5);
  await until(() => server.streams.size === 1);
  await until(() => all.every(({ seen }) => seen.length === 1));
  for (const news of [1, 2, 3]) server.tell(news);
  await until(() => all.every(({ seen }) => seen.at(-1) === 3));
  for (const { seen } of all) expect(seen).toEqual([0, 1, 2, 3]);
  expect(server.streams.size).toBe(1);
});

test('when the tab that has the stream is closed another goes on from the last number', async () => {
  const server = new FakeServer();
  const all = open(server, 3);
  await until(() => server.streams.size === 1);
  server.tell(1);
  await until(() => all.every(({ seen }) => seen.at(-1) === 1));
  const [listener] = server.streams;
  const leader = all.find(({ stream }) => stream.isLeading);
  await leader?.stream.close();
  await until(() => server.streams.size === 1 && !server.streams.has(listener as SourceListener));
  expect(server.asked.at(-1)).toBe('a-1');
  server.tell(2);
  const others = all.filter((tab) => tab !== leader);
  await until(() => others.every(({ seen }) => seen.at(-1) === 2));
});

test('two that both have the stream, as tabs that slept may, choose anew: one has it, and all hear', async () => {
  const server = new FakeServer();
  const all = open(server, 3);
  await until(() => server.streams.size === 1);
  await until(() => all.every(({ seen }) => seen.length === 1));
  const leader = all.find(({ stream }) => stream.isLeading);
  // What the election calls where another one says that it leads; it may say so twice.
  const elector = Reflect.get(leader?.stream ?? {}, 'elector') as { readonly _dpL: () => void };
  elector._dpL();
  elector._dpL();
  expect(server.streams.size).toBe(0);
  await until(() => server.streams.size === 1);
  server.tell(1);
  await until(() => all.every(({ seen }) => seen.at(-1) === 1));
});

test('a gap is seen, the state read and all else read again; so is another server', async () => {
  const server = new FakeServer();
  const [tab] = open(server, 1);
  await until(() => server.greeted === 1 && tab?.seen.length === 1);
  server.tell(1);
  server.number += 5;
  server.tell(2);
  await until(() => tab?.seen.at(-1) === 2);
  expect(tab?.missed).toBe(1);
  server.era = 'b';
  server.number = 0;
  server.tell(3);
  await until(() => tab?.missed === 2);
  expect(tab?.seen.at(-1)).toBe(3);
});

test('a server that went away is told to every tab, with the time it was heard last, and that it is back', async () => {
  const server = new FakeServer();
  const all = open(server, 2);
  await until(() => server.greeted === 1 && all.every(({ seen }) => seen.length === 1));
  const before = Date.now();
  for (const one of server.streams) one.lost(false);
  await until(() => all.every(({ since }) => since !== undefined && since <= before));
  expect(all.map(({ seen }) => seen.length)).toEqual([1, 1]);
  server.tell(1);
  await until(() => all.every(({ since, seen }) => since === undefined && seen.at(-1) === 1));
});

test('a stream that was refused is asked for again', async () => {
  const server = new FakeServer();
  open(server, 1);
  await until(() => server.streams.size === 1);
  for (const one of [...server.streams]) one.lost(true);
  await until(() => server.asked.length === 2);
});
