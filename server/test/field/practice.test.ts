import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { formatMac, type EvidenceKind } from '@ipsonomo/core';
import { PracticeSite, TERN_COVE } from '@ipsonomo/practice';
import { FieldEngine } from '../../src/field/engine';
import type { FieldEvent, FieldTarget } from '../../src/field/protocol';
import { ip, LAPTOP, mac, planOf, target } from './bench';

// The whole engine against the whole practice site, frame by frame, in virtual time: what one says
// the other has to understand, and tshark has to find nothing wrong with it.

/** A seeded generator, so that every run is the same. */
function seeded(seed: number): () => number {
  let state = seed;
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
}

const VALVES = target({
  interfaceId: 'valves',
  title: 'Oxygen valve block',
  mac: mac('02:4c:7a:40:51:62'),
  address: ip('172.22.40.104'),
  gateway: ip('172.22.40.1'),
  hostName: 'ox1-valves-1',
  bootSeconds: 3,
});

class Site {
  readonly events: FieldEvent[] = [];
  readonly folder = mkdtempSync(join(tmpdir(), 'ipsonomo-practice-'));
  readonly site: PracticeSite;
  readonly engine: FieldEngine;

  constructor(targets: readonly FieldTarget[]) {
    jest.useFakeTimers({ now: 1_764_000_000_000 });
    this.site = new PracticeSite(
      TERN_COVE,
      seeded(7),
      (frame) => this.engine.frame(frame),
      this.now(),
    );
    const carrier = {
      source: 'practice',
      mac: LAPTOP,
      send: (frame: Uint8Array) => this.site.fromLaptop(frame, this.now()),
      openTcp: undefined,
      close: () => undefined,
    };
    this.engine = new FieldEngine(carrier, () => this.now(), this.folder, {
      events: (events) => this.events.push(...events),
      heard: () => undefined,
      forgot: () => undefined,
      changed: () => undefined,
    });
    this.engine.plan(planOf(targets, ['172.22.40.253']));
    this.engine.listen('run');
  }

  now = () => Date.now();

  async advance(seconds: number): Promise<void> {
    for (const end = this.now() + seconds * 1000; this.now() < end;) {
      await jest.advanceTimersByTimeAsync(10);
      this.site.run(this.now());
      this.engine.run(this.now());
    }
  }

  async pin(interfaceId: string): Promise<void> {
    let over = false;
    void this.engine.pin(interfaceId, 'Mara Quist').finally(() => (over = true));
    while (!over) await this.advance(0.1);
  }

  async powerCycle(device: string, seconds = 3): Promise<void> {
    this.site.act({ kind: 'power', device, on: false }, this.now());
    await this.advance(seconds);
    this.site.act({ kind: 'power', device, on: true }, this.now());
    await this.advance(10);
  }

  last = (kind: EvidenceKind) => this.events.findLast((event) => event.kind === kind);
  kinds = () => this.events.map((event) => event.kind);
  get capture() {
    return join(this.folder, 'run.pcap');
  }
}

afterEach(() => jest.useRealTimers());

async function givenAndPinned(): Promise<Site> {
  const site = new Site([VALVES]);
  site.engine.arm(600_000, 'Mara Quist');
  await site.advance(10);
  await site.pin('valves');
  return site;
}

test('R-PIN, R-POWER: heard, given, told to keep it, through a power cut, found as planned', async () => {
  const site = await givenAndPinned();
  expect(site.last('told-to-keep')?.facts).toEqual({ before: 1, after: 0, capability: 0x15 });
  site.engine.watchPower('valves', 'Mara Quist');
  await site.advance(1);
  await site.powerCycle('oxygen-valve-block');
  site.engine.check(['valves'], 'Mara Quist');
  await site.advance(5);
  expect(site.kinds()).toEqual([
    ...['asked', 'answered', 'has-address', 'told-to-keep'],
    ...['gone', 'kept', 'has-address', 'found-as-planned'],
  ]);
  expect(site.last('found-as-planned')?.facts).toMatchObject({ found: '02:4c:7a:40:51:62' });
});

test('R-POWER: not told to keep it, it asks again after a power cut, and is not answered meanwhile', async () => {
  const site = new Site([VALVES]);
  site.engine.arm(600_000, '');
  await site.advance(10);
  site.engine.watchPower('valves', '');
  await site.advance(1);
  await site.powerCycle('oxygen-valve-block');
  expect(site.kinds()).toContain('asks-again');
  expect(site.kinds()).not.toContain('kept');
});

test('R-POWER: a cable pulled for a moment is no power cut', async () => {
  const site = await givenAndPinned();
  site.engine.watchPower('valves', '');
  await site.advance(1);
  site.site.act({ kind: 'cable', device: 'oxygen-valve-block', on: false }, site.now());
  await site.advance(2.2);
  site.site.act({ kind: 'cable', device: 'oxygen-valve-block', on: true }, site.now());
  await site.advance(2);
  expect(site.last('back-too-soon')?.facts).toMatchObject({ needsSeconds: 3 });
  expect(site.kinds()).not.toContain('kept');
});

test('a device that a controller owns refuses, and is left as it was', async () => {
  const owned = target({
    interfaceId: 'valves',
    mac: mac('02:4c:7a:40:51:90'),
    address: ip('172.22.40.105'),
  });
  const site = new Site([owned]);
  site.site.act({ kind: 'socket', segment: 'feeding' }, site.now());
  site.engine.arm(600_000, '');
  await site.advance(20);
  await site.pin('valves');
  expect(site.last('keep-refused')?.facts).toEqual({
    ...{ why: 'refused', step: 'write 3', status: 0x0c, name: 'object state conflict' },
  });
});

test.each([
  ['the old lift controller', '172.22.40.101', '02:4c:7a:10:00:77', 'contradicted', 'mac'],
  ['nobody', '172.22.40.199', undefined, 'no-answer', undefined],
])('at the planned address: %s', async (_who, address, found, kind, what) => {
  const site = new Site([target({ interfaceId: 'one', address: ip(address) })]);
  site.engine.check(['one'], '');
  await site.advance(6);
  expect(site.events.at(-1)).toMatchObject({ kind });
  expect(site.events.at(-1)?.facts['what']).toBe(what);
  expect(site.events.at(-1)?.facts['found']).toBe(found);
});

// tshark of Debian. CI must have it; elsewhere it may be missing.
const withTshark =
  spawnSync('tshark', ['--version']).status === 0 || process.env['CI'] ? test : test.skip;

const tshark = (...args: readonly string[]): readonly string[] =>
  execFileSync('tshark', args, { stdio: ['ignore', 'pipe', 'ignore'] })
    .toString()
    .trimEnd()
    .split('\n');

withTshark(
  'tshark finds nothing wrong with a run, and reads the pinning as it is meant',
  async () => {
    const site = await givenAndPinned();
    await site.advance(20);
    const checks = ['ip.check_checksum', 'udp.check_checksum', 'tcp.check_checksum'];
    const strict = checks.flatMap((one) => ['-o', `${one}:TRUE`]);
    // Severity above "note": warnings and errors. A closing handshake is a note ("chat" in its words).
    const wrong = '_ws.malformed or _ws.expert.severity >= 6291456';
    expect(tshark('-r', site.capture, ...strict, '-Y', wrong)).toEqual(['']);
    const ours = `cip && eth.src == ${formatMac(LAPTOP)}`;
    const fields = ['cip.sc', 'cip.class', 'cip.instance', 'cip.attribute'];
    const asked = fields.flatMap((field) => ['-e', field]);
    const said = tshark(
      '-r',
      site.capture,
      '-Y',
      ours,
      '-T',
      'fields',
      '-E',
      'separator= ',
      ...asked,
    );
    const get = (attribute: number) => `0x0e 0xf5 0x01 ${attribute}`;
    expect(said).toEqual([get(2), get(3), get(5), '0x10 0xf5 0x01 3', get(3)]);
    const answers = `cip && eth.dst == ${formatMac(LAPTOP)}`;
    const statuses = tshark('-r', site.capture, '-Y', answers, '-T', 'fields', '-e', 'cip.genstat');
    expect(statuses).toEqual(Array.from({ length: 5 }, () => '0x00'));
  },
);
