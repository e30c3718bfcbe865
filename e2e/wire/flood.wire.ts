import { execFileSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { cases } from '../../core/test/cases';
import type { Machine } from './namespaces';
import { onWire } from './on-wire';

// R-STEP-ASIDE and the rest: hostile frames at 2,000 a second, for as long as it is told to (npm run soak: a million), and a good device that asks
// among them. tshark says what left each adapter.

const RATE = 2000;
const PERIOD = 500; // ms between two questions of the good device
const GOOD = '02:00:5e:00:57:a1';
const HOSTILE = '02:00:5e:00:53:3f';
const OURS = '02:00:5e:00:53:f0';

const on = onWire('ipsm');

/** Keeps what leaves an adapter of the laptop, until it is ended. */
async function captured(laptop: Machine, adapter: string) {
  const file = join(mkdtempSync(join(tmpdir(), 'ipsonomo-left-')), `${adapter}.pcap`);
  const dump = laptop.start('tcpdump', '-Q', 'out', '-U', '-B', '16384', '-i', adapter, '-w', file);
  await new Promise((resolve) => setTimeout(resolve, 1500)); // it opens its socket
  const end = async () => {
    await new Promise((resolve) => setTimeout(resolve, 1000)); // the kernel hands it over in blocks
    laptop.run('pkill', '-INT', '-f', file);
    await once(dump, 'exit');
  };
  return { file, end };
}

/** tshark's fields of the frames of a file, a line each. */
function tshark(file: string, filter: string, ...fields: readonly string[]): readonly string[] {
  const asked = fields.flatMap((field) => ['-e', field]);
  const out = execFileSync('tshark', ['-r', file, '-Y', filter, '-T', 'fields', ...asked], {
    ...{ stdio: ['ignore', 'pipe', 'ignore'], maxBuffer: 1 << 28 },
  });
  return out.toString().split('\n').filter(Boolean);
}

test('a flood of hostile frames: each good request is answered at once, nobody else, and on no other adapter', async () => {
  const good = Math.max(10, cases(20));
  const count = (good * PERIOD * RATE) / 1000;
  test.setTimeout(120_000 + good * PERIOD * 2);
  const device = on.wire.addDevice('g1', GOOD);
  const crowd = on.wire.addDevice('h1', HOSTILE);
  on.wire.addDevice('o1', '02:00:5e:00:53:3e', 'office');
  const at = await on.job.plan('valves-a1', 'tarnwick-valves-16', 'bootp', '10.77.0.161');
  await on.job.bind(at, GOOD);
  const machine = await captured(on.wire.laptop, 'mach0');
  const office = await captured(on.wire.laptop, 'off0');
  await on.job.answer(60);
  const pid = on.server.pid();
  const before = (await on.job.field()).counters;

  const flood = crowd.start(
    ...crowd.program('flood.ts', ['5', String(count), String(RATE), HOSTILE]),
  );
  const asking = device.start(...device.program('asking.ts', [String(good), String(PERIOD), GOOD]));
  let said = '';
  asking.stdout?.on('data', (data: Buffer) => (said += data.toString()));
  await Promise.all([once(flood, 'exit'), once(asking, 'exit')]);
  await machine.end();
  await office.end();

  const answers = JSON.parse(said) as Record<'asked' | 'answered' | 'p50' | 'p99', number>;
  const { counters } = await on.job.field();
  console.log(
    `${count} hostile frames at ${RATE} a second, ${counters.received - before.received} heard; ${said.trim()}`,
  );
  // Nothing that a stranger sends keeps it from answering, or has it say so.
  const harmless = ['unreadable', 'no-other-server', 'capture-gives-way'];
  const { notices } = await on.job.field();
  expect(notices.filter(({ code }) => !harmless.includes(code))).toEqual([]);
  expect(answers).toMatchObject({ asked: good, answered: good });
  expect(on.server.pid()).toBe(pid);
  expect(on.server.output()).not.toContain('Error');
  // The rest is of protocols that the kernel does not even hand over, or was dropped where nobody had time for it.
  expect(counters.received - before.received).toBeGreaterThan(count * 0.05);
  // What left: answers to the one good device, and questions for addresses. Nothing that tshark finds broken.
  const replies = tshark(machine.file, 'dhcp.type == 2', 'eth.src', 'dhcp.hw.mac_addr');
  expect(replies.length).toBeGreaterThanOrEqual(good);
  expect([...new Set(replies)]).toEqual([`${OURS}\t${GOOD}`]);
  // Besides only questions of ours: for addresses, and at the beginning for other servers.
  const others = `!(dhcp.type == 2) && !arp && !(dhcp.hw.mac_addr == ${OURS})`;
  expect(tshark(machine.file, others, 'frame.protocols', 'eth.src')).toEqual([]);
  expect(
    tshark(machine.file, '_ws.malformed || _ws.expert.severity >= 8388608', 'frame.number'),
  ).toEqual([]);
  expect(tshark(office.file, 'frame', 'frame.protocols')).toEqual([]);
});
