import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { LIMITED_BROADCAST, toMac, UNSPECIFIED } from '@ipsonomo/core/net';
import { dhcpFrame, dhcpMessageOf, OPTION, rawOption } from '@ipsonomo/core/wire';
import { api, until } from '../harness';
import { bootpc, udhcpc } from './clients';
import { bootpRequest, mac } from './frames';
import { onWire } from './on-wire';
import { cases } from '../../core/test/cases';
import { frames as samples } from '../../core/test/wire/samples';

// What a wire can do to a server: nonsense, storms, and the server or its database going away.

const VALVES = 'tarnwick-valves-16';
const DRIVE = 'belloch-drive-d4';

const on = onWire('ipsf', { stopsDatabase: true });

test('10,000 hostile frames: it stays up, counts them, and answers the next good one', async () => {
  const victim = '02:00:5e:00:53:31';
  const device = on.wire.addDevice('h1', victim);
  const at = await on.job.plan('valves-31', VALVES, 'bootp', '10.77.0.131');
  await on.job.bind(at, victim);
  const pid = on.server.pid();
  // Where this machine has little time to give, the kernel drops what nobody takes: then more are sent.
  let malformed = 0;
  for (let flood = 0; flood < 10 && malformed <= 1000; flood += 1) {
    const seed = String(5227 + flood * 20_000);
    device.script('flood.ts', [seed, String(cases(10_000)), '5000', '02:00:5e:00:53:3f']);
    malformed = (await settledCounters()).malformed;
  }
  expect(malformed).toBeGreaterThan(1000);
  await on.job.answer();
  expect(bootpc(device, 20).address).toBe('10.77.0.131');
  expect(on.server.pid()).toBe(pid);
  expect(on.server.output()).not.toContain('Error');
});

/** What was counted, once no more comes in. */
const settledCounters = async () => {
  const { counters } = await until('all of them are through', async () => {
    const before = (await on.job.field()).counters.received;
    await new Promise((resolve) => setTimeout(resolve, 300));
    const field = await on.job.field();
    return field.counters.received === before && field;
  });
  return counters;
};

/** Sample frames of every kind as zzuf spoils them: other bits than ours, by its own seeds. */
function spoiledFrames(seeds: number): readonly Uint8Array[] {
  const whole = Object.values(samples).map((frame) => {
    const padded = Buffer.alloc(Math.max(60, frame.length));
    padded.set(frame);
    // From somebody who has nothing to do with the plan.
    toBytes('02:00:5e:00:53:3d').forEach((byte, i) => (padded[6 + i] = byte));
    return padded;
  });
  const file = join(mkdtempSync(join(tmpdir(), 'ipsonomo-zzuf-')), 'frames');
  writeFileSync(file, Buffer.concat(whole));
  const spoiled = execFileSync('zzuf', ['-s', `0:${seeds}`, '-r', '0.002:0.05', 'cat', file], {
    maxBuffer: 1 << 28,
  });
  const frames: Uint8Array[] = [];
  for (let at = 0; at < spoiled.length;)
    for (const { length } of whole) {
      frames.push(spoiled.subarray(at, at + length));
      at += length;
    }
  return frames.filter(({ length }) => length >= 14);
}

const toBytes = (mac: string): readonly number[] =>
  mac.split(':').map((part) => parseInt(part, 16));

test('frames that zzuf spoiled: it stays up, and answers the next good one', async () => {
  const victim = '02:00:5e:00:53:3b';
  const device = on.wire.addDevice('h9', victim);
  const at = await on.job.plan('valves-3b', VALVES, 'bootp', '10.77.0.139');
  await on.job.bind(at, victim);
  const pid = on.server.pid();
  const frames = spoiledFrames(cases(100));
  expect(frames.length).toBeGreaterThan(1000);
  for (let from = 0; from < frames.length; from += 1000)
    device.send(frames.slice(from, from + 1000));
  await on.job.answer();
  expect(bootpc(device, 20).address).toBe('10.77.0.139');
  expect(on.server.pid()).toBe(pid);
  expect(on.server.output()).not.toContain('Error');
});

test('a storm of 80,000 requests from 5,000 strangers: ours is answered in the middle of it', async () => {
  const ours = '02:00:5e:00:53:32';
  const device = on.wire.addDevice('h2', ours);
  const crowd = on.wire.addDevice('h3', '02:00:5e:00:53:3e');
  const at = await on.job.plan('drive-32', DRIVE, 'dhcp-mac', '10.77.0.86');
  await on.job.bind(at, ours);
  await on.job.answer();
  const lines = Array.from({ length: 80_000 }, (_, i) =>
    Buffer.from(bootpRequest(toMac(0x02aa00000000 + (i % 5000)), i + 1)).toString('hex'),
  );
  const storm = crowd.start(...crowd.program('send.ts', []));
  storm.stdin?.end(lines.join('\n'));
  const over = new Promise((resolve) => storm.once('exit', resolve));
  await until('the storm has begun', async () => (await on.job.field()).counters.requests > 2000);
  expect(udhcpc(device, 10).address).toBe('10.77.0.86');
  expect(storm.exitCode).toBeNull();
  await over;
  const heard = await on.job.heard();
  expect(heard.length).toBeLessThanOrEqual(2048 + 10);
  expect((await on.job.field()).counters.strangersDropped).toBeGreaterThan(2000);
  expect(heard.some((one) => one.mac === ours)).toBe(true);
});

test('killed after the offer: the evidence says that nothing was given yet', async () => {
  const client = '02:00:5e:00:53:33';
  const device = on.wire.addDevice('h4', client);
  const at = await on.job.plan('drive-33', DRIVE, 'dhcp-mac', '10.77.0.88');
  await on.job.bind(at, client);
  await on.job.answer();
  const ends = { from: UNSPECIFIED, fromPort: 68, to: LIMITED_BROADCAST, toPort: 67 };
  const options = [rawOption(OPTION.messageType, 1)];
  const discover = {
    operation: 'request',
    transaction: 9,
    clientMac: mac(client),
    options,
  } as const;
  const { sent } = (await on.job.field()).counters;
  device.send([dhcpFrame(mac(client), ends, dhcpMessageOf(discover))]);
  await until('the offer left', async () => (await on.job.field()).counters.sent > sent);
  await new Promise((resolve) => setTimeout(resolve, 400));
  await on.server.kill();
  await on.server.restart();
  expect((await on.job.evidence(at)).map((one) => one.kind)).toEqual(['asked', 'bound']);
  expect((await on.job.at(at)).stage).toBe('heard');
  const runs = await api<{ endedAt: number | null }[]>(on.server, 'GET', `/jobs/${on.job.id}/runs`);
  expect(runs.every((run) => run.endedAt !== null)).toBe(true);
});

test('the database away while a device is given its address, then the server killed: nothing is lost', async () => {
  const client = '02:00:5e:00:53:34';
  const device = on.wire.addDevice('h5', client);
  const at = await on.job.plan('valves-34', VALVES, 'bootp', '10.77.0.134');
  await on.job.bind(at, client);
  await on.job.listenOn('mach0');
  await on.job.answer();
  on.cluster?.stopNow();
  await expect(on.job.view()).rejects.toThrow('store.away');
  await expect(on.job.bind(at, client)).rejects.toThrow('store.away');
  // The wire does not wait for the database.
  expect(bootpc(device, 20).address).toBe('10.77.0.134');
  await new Promise((resolve) => setTimeout(resolve, 4000)); // it is asked whether it took it
  await on.server.kill();
  expect(on.cluster?.start()).toBe(true);
  await on.server.restart();
  const kinds = (await on.job.evidence(at)).map((one) => one.kind);
  expect(kinds).toEqual(['has-address', 'answered', 'asked', 'bound']);
  expect((await on.job.at(at)).stage).toBe('given');
});

test('the database stopped and started under a running server: what was seen meanwhile arrives', async () => {
  const client = '02:00:5e:00:53:35';
  const device = on.wire.addDevice('h6', client);
  const at = await on.job.plan('valves-35', VALVES, 'bootp', '10.77.0.135');
  await on.job.bind(at, client);
  await on.job.listenOn('mach0');
  await on.job.answer();
  on.cluster?.stopNow();
  expect(bootpc(device, 20).address).toBe('10.77.0.135');
  expect(on.cluster?.start()).toBe(true);
  await on.job.seen(at, 'has-address');
  await on.job.reaches(at, 'given');
});
