import { expect, test } from '@playwright/test';
import type { AdapterView, FieldView } from '@ipsonomo/core/api';
import { api, until } from '../harness';
import { udhcpc } from './clients';
import { Job } from './job';
import { onWire } from './on-wire';

// One server, two jobs, two adapters: neither hears, answers or ends what the other does.

const DRIVE = 'belloch-drive-d4';
const MACHINE = '02:00:5e:00:53:51';
const OFFICE = '02:00:5e:00:53:52';

const on = onWire('ipsj');
let other: Job;

test('two jobs on two adapters: each hears its own devices and gives them its own addresses', async () => {
  const machine = on.wire.addDevice('d1', MACHINE);
  const office = on.wire.addDevice('o1', OFFICE, 'office');
  other = await Job.begin(on.server, 'Office');
  await other.listenOn('off0');
  // Both MACs are bound in both jobs: it is the adapter that tells which of them answers.
  for (const [job, end] of [
    [on.job, 1],
    [other, 2],
  ] as const)
    for (const [mac, host] of [
      [MACHINE, 10],
      [OFFICE, 20],
    ] as const) {
      const at = await job.plan(`drive-${host}`, DRIVE, 'dhcp-mac', `10.77.0.${end * 100 + host}`);
      await job.bind(at, mac);
    }
  await Promise.all([on.job.answer(), other.answer()]);
  expect(udhcpc(machine, 6).address).toBe('10.77.0.110');
  expect(udhcpc(office, 6).address).toBe('10.77.0.220');
  const macs = async (job: Job) => (await job.heard()).map(({ mac }) => mac);
  await until(
    'both are told',
    async () => (await macs(on.job)).length + (await macs(other)).length === 2,
  );
  expect(await macs(on.job)).toEqual([MACHINE]);
  expect(await macs(other)).toEqual([OFFICE]);
  const wires = await api<FieldView[]>(on.server, 'GET', '/wires');
  expect(wires.map(({ source }) => source).toSorted()).toEqual(['live:mach0', 'live:off0']);
  const adapters = await api<AdapterView[]>(on.server, 'GET', '/adapters');
  const owners = adapters.map(({ name, job }) => [name, job?.name]);
  expect(owners).toEqual(
    expect.arrayContaining([
      ['mach0', 'Bench'],
      ['off0', 'Office'],
    ]),
  );
});

test('what each keeps is of its own wire alone', async () => {
  for (const [job, own] of [
    [on.job, MACHINE],
    [other, OFFICE],
  ] as const) {
    const { runId } = await job.field();
    const [run] = await api<{ id: string; source: string }[]>(
      on.server,
      'GET',
      `/jobs/${job.id}/runs`,
    );
    expect(run?.id).toBe(runId);
    for (const { interfaces } of (await job.view()).devices)
      for (const { id, mac } of interfaces) {
        const seen = (await job.evidence(id)).map(({ source }) => source);
        expect([...new Set(seen.filter((source) => source.startsWith('live:')))]).toEqual(
          mac === own ? [run?.source] : [],
        );
      }
  }
});

test('falling silent on one leaves the other answering; one word ends both', async () => {
  await api(on.server, 'POST', on.job.wire('/silence'));
  expect((await on.job.field()).answeringUntil).toBeNull();
  expect((await other.field()).answeringUntil).not.toBeNull();
  const office = on.wire.addDevice('o2', '02:00:5e:00:53:53', 'office');
  const at = await other.plan('drive-30', DRIVE, 'dhcp-mac', '10.77.0.230');
  await other.bind(at, '02:00:5e:00:53:53');
  expect(udhcpc(office, 6).address).toBe('10.77.0.230');
  await on.job.answer();
  await api(on.server, 'POST', '/silence');
  for (const job of [on.job, other]) expect((await job.field()).answeringUntil).toBeNull();
});

test('R-TAKE: an adapter is one job’s at a time; it is taken after a question, and both are told', async () => {
  const live = { kind: 'live', adapter: 'mach0' };
  await expect(api(on.server, 'POST', other.wire(), live)).rejects.toThrow('wire.inUse');
  // Nothing has changed by that.
  expect((await other.field()).source).toBe('live:off0');
  expect((await on.job.field()).runId).not.toBeNull();
  await api(on.server, 'POST', other.wire(), { ...live, evenSo: true });
  expect(await other.field()).toMatchObject({ source: 'live:mach0' });
  expect(await on.job.field()).toMatchObject({ source: null, runId: null });
  for (const job of [on.job, other])
    expect((await job.field()).notices.map(({ code }) => code)).toContain('wire-taken');
});

test('two that choose one adapter at the same moment do not both have it', async () => {
  const live = { kind: 'live', adapter: 'off0' };
  for (let round = 0; round < 5; round += 1) {
    for (const job of [on.job, other])
      await api(on.server, 'POST', job.wire(), { kind: 'practice' });
    await Promise.allSettled(
      [on.job, other].map((job) => api(on.server, 'POST', job.wire(), live)),
    );
    const wires = await api<FieldView[]>(on.server, 'GET', '/wires');
    expect(wires.filter(({ source }) => source === 'live:off0')).toHaveLength(1);
  }
  await api(on.server, 'POST', other.wire(), { kind: 'live', adapter: 'mach0' });
});

test('after a crash of the server nobody listens, and either adapter can be taken by either job', async () => {
  await on.job.listenOn('off0');
  await api(on.server, 'POST', other.wire('/listen'));
  await on.server.kill();
  await on.server.restart();
  // After a crash nobody listens, and either can begin again.
  for (const [job, adapter] of [
    [on.job, 'mach0'],
    [other, 'off0'],
  ] as const) {
    expect((await job.field()).runId).toBeNull();
    await job.listenOn(adapter);
  }
  const { length } = await api<FieldView[]>(on.server, 'GET', '/wires');
  expect(length).toBe(2);
});
