import { createHash } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import JSZip from 'jszip';
import {
  FORMATS,
  readerOf,
  WHOLE_JOB,
  type ErrorView,
  type FormatId,
  type HandedOver,
  type PackageView,
  type PackageWish,
  type WrittenTick,
} from '@ipsonomo/core/api';
import { readPlanFile } from '@ipsonomo/core/formats';
import { verifyProof } from '@ipsonomo/handover';
import { ApiBench, asBytes, device } from './api-bench';

// What leaves: written in a thread of its own, whole or not at all.

// The thread that writes gives way to everybody else, also to whatever a busy machine does besides.
jest.setTimeout(120_000);

let bench: ApiBench;
beforeAll(async () => {
  bench = await ApiBench.open('packages');
}, 30_000);
afterAll(async () => {
  await bench.close();
  expect(bench.logged).toEqual([]);
});

const wish = (formats: readonly FormatId[], more: Partial<PackageWish> = {}): PackageWish => ({
  ...{ formats, scope: WHOLE_JOB, despite: true },
  ...more,
});

const bytesAt = async (path: string): Promise<Buffer> =>
  (
    await bench
      .call('get', path)
      .buffer(true)
      .parse(asBytes as never)
      .expect(200)
  ).body as Buffer;

async function begin(path: string, wanted: PackageWish): Promise<string> {
  const { body } = await bench.call('post', `${path}/packages`).send(wanted).expect(201);
  return `${path}/packages/${(body as { id: string }).id}`;
}

async function done(made: string): Promise<Exclude<PackageView, { state: 'writing' }>> {
  for (;;) {
    const { body } = await bench.call('get', made).expect(200);
    const view = body as PackageView;
    if (view.state !== 'writing') return view;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

let jobs = 0;
async function jobWithDevices(count = 3): Promise<string> {
  jobs += 1;
  const { path, subnetId } = await bench.jobOf(`Packages ${jobs}`);
  const all = Array.from({ length: count }, (_, at) =>
    device({
      subnetId,
      name: `vb-${jobs}-${at}`,
      title: `Block ${at}`,
      address: `10.9.0.${100 + at}`,
    }),
  );
  await bench.add(path, ...all);
  return path;
}
const folder = () => join(bench.captures, 'packages');

test('everything becomes one ZIP: by reader, each file with its digest, what is not in it told', async () => {
  const path = await jobWithDevices();
  const made = await begin(path, wish(FORMATS));
  const view = await done(made);
  if (view.state !== 'ready') throw new Error(JSON.stringify(view));
  expect(new Set(view.files.map(({ format }) => format))).toEqual(
    // A subnet without a domain has no zone.
    new Set(FORMATS.filter((format) => format !== 'zones')),
  );
  // Nothing is bound: nobody can be given an address by its MAC.
  expect(view.left.find(({ format }) => format === 'dhcpd')).toMatchObject({ count: 3 });
  const zip = await JSZip.loadAsync(await bytesAt(`${made}/file`));
  const names = Object.keys(zip.files).filter((name) => !zip.files[name]?.dir);
  const sums = (await zip.file('SHA256SUMS')?.async('string')) ?? '';
  expect(sums.trim().split('\n').length).toBe(names.length - 1);
  for (const line of sums.trim().split('\n')) {
    const [digest, name = ''] = line.split('  ');
    const bytes = await zip.file(name)?.async('nodebuffer');
    expect(
      createHash('sha256')
        .update(bytes ?? '')
        .digest('hex'),
    ).toBe(digest);
    expect(['it', 'programmer', 'cabinet', 'record']).toContain(name.split('/')[0]);
  }
  const textOf = async (part: string) =>
    (await zip.file(names.find((name) => name.includes(part)) ?? '')?.async('nodebuffer')) ??
    Buffer.alloc(0);
  expect(readPlanFile((await textOf(' plan revision')).toString())).toMatchObject({ ok: true });
  const [json = ''] = names.filter((name) => /proof.*\.json$/.test(name));
  const proof = await zip.file(json)?.async('nodebuffer');
  const signature = await zip.file(`${json}.sig`)?.async('nodebuffer');
  expect(verifyProof(proof ?? Buffer.alloc(0), signature, undefined).faults).toEqual([]);
});

test('a part of a job, as one file under its own name', async () => {
  const path = await jobWithDevices(2);
  const { things } = (await bench.call('get', `${path}/plan`)).body as {
    things: { subnet: { id: string }[] };
  };
  const subnets = [things.subnet[0]?.id ?? ''];
  const all = await done(await begin(path, wish(['hosts'], { scope: { cabinets: [], subnets } })));
  expect(all).toMatchObject({
    state: 'ready',
    text: expect.stringContaining('10.9.0.101') as string,
  });
  const none = await done(
    await begin(path, wish(['hosts'], { scope: { cabinets: ['X9'], subnets } })),
  );
  expect(none).toMatchObject({
    state: 'ready',
    text: expect.not.stringContaining('10.9.0.101') as string,
  });
});

test('what is wrong leaves only by a person’s word, and then the file says so', async () => {
  const { path, subnetId } = await bench.jobOf('Packages wrong');
  const twice = ['a', 'b'].map((name) =>
    device({ subnetId, name, title: name, address: '10.9.0.77' }),
  );
  await bench.add(path, ...twice.slice(0, 1));
  // Two of one address can only come in by edits.
  const [{ interfaces: [one] } = { interfaces: [] }] = (await bench.view(path)).devices;
  await bench.add(path, device({ subnetId, name: 'c', title: 'c', address: '10.9.0.78' }));
  const second = (await bench.view(path)).devices[1]?.interfaces[0];
  const edits = [
    ...[
      {
        op: 'set',
        type: 'interface',
        id: second?.id,
        field: 'address',
        from: '10.9.0.78',
        to: one?.address,
      },
    ],
  ];
  await bench.call('post', `${path}/edits`).send({ edits, why: 'the same twice' }).expect(200);
  const refused = await done(await begin(path, wish(['hosts'], { despite: false })));
  expect(refused).toMatchObject({ state: 'failed', issue: { code: 'package.wrong' } });
  const { body } = await bench.call('get', `${path}/files/hosts`).expect(409);
  expect((body as ErrorView).issues[0]?.code).toBe('package.wrong');
  const { text } = await bench.call('get', `${path}/files/hosts?despite=yes`).expect(200);
  expect(text).toMatch(/^# ! \d+ things? (is|are) wrong in this plan/m);
});

test('taken back in the middle it leaves nothing; another job’s is not there', async () => {
  const path = await jobWithDevices(60);
  const other = await jobWithDevices(1);
  const made = await begin(path, wish(['swap-cards', 'labels-png', 'proof-pdf']));
  await bench.call('get', made.replace(path, other)).expect(404);
  await bench.call('delete', made).expect(204);
  await bench.call('get', made).expect(404);
  await bench.call('get', `${made}/file`).expect(404);
  const id = made.split('/').at(-1) ?? '';
  expect(readdirSync(folder()).filter((name) => name.startsWith(id))).toEqual([]);
});

test('more than are written at once wait, and all become ready', async () => {
  const path = await jobWithDevices();
  const all = await Promise.all(
    Array.from({ length: 4 }, () => begin(path, wish(['hosts', 'names']))),
  );
  for (const made of all) expect(await done(made)).toMatchObject({ state: 'ready' });
});

test('an unknown format, and one of nothing, are refused', async () => {
  const path = await jobWithDevices(1);
  await bench.call('get', `${path}/files/papyrus`).expect(404);
  await bench
    .call('post', `${path}/packages`)
    .send({ ...wish([]), formats: [] })
    .expect(400);
  await bench
    .call('post', `${path}/packages`)
    .send({ ...wish([]), formats: ['papyrus'] })
    .expect(400);
});

test('each reader’s last hand-over is kept, and counts from its revision', async () => {
  const path = await jobWithDevices(1);
  const note = (formats: readonly FormatId[]) => {
    const [first = 'hosts'] = formats;
    return bench
      .call('post', `${path}/hand-overs`)
      .send({ reader: readerOf(first), formats })
      .expect(204);
  };
  await note(['hosts']);
  await note(['labels-pdf', 'swap-cards']);
  await note(['kea']);
  const { body } = await bench.call('get', `${path}/hand-overs`).expect(200);
  const handed = body as readonly HandedOver[];
  expect(handed.map(({ reader, formats }) => [reader, formats])).toEqual([
    ['cabinet', ['labels-pdf', 'swap-cards']],
    ['it', ['kea']],
  ]);
  expect((await bench.view(path)).left.handOver).toBe(0);
});

test('R-WRITTEN: a place is ticked off by a person, for the value that stood there', async () => {
  const path = await jobWithDevices(1);
  const at = (await bench.view(path)).devices[0]?.interfaces[0]?.id ?? '';
  const say = (is: 'yes' | 'no') =>
    bench
      .call('post', `${path}/interfaces/${at}/said-written`)
      .send({ place: 'monitoring', whose: '', value: '10.9.0.100', is })
      .expect(204);
  await say('yes');
  const ticks = async () => (await bench.call('get', `${path}/written`)).body as WrittenTick[];
  expect(await ticks()).toMatchObject([{ interface: at, place: 'monitoring', is: 'yes' }]);
  const csv = async () =>
    (await bench.call('get', `${path}/files/written-places?despite=yes`)).text;
  expect(await csv()).toMatch(/monitoring,,10\.9\.0\.100,[^,\r\n]+,\d{4}-/);
  await say('no');
  expect(await ticks()).toMatchObject([{ is: 'no' }]);
  expect(await csv()).toMatch(/monitoring,,10\.9\.0\.100,,\r\n/);
});

test('one key signs for the installation, and is nobody else’s to read', async () => {
  const path = await jobWithDevices(1);
  await bytesAt(`${path}/files/proof-json?despite=yes`);
  expect(existsSync(join(bench.captures, 'installation.key.pem'))).toBe(true);
});

test('of one interface only: its label as a picture, by the page and by a program; of none that is not there', async () => {
  const { path, subnetId } = await bench.jobOf('Packages single label');
  await bench.add(
    path,
    device({ subnetId, name: 'drive-1', title: 'Drive 1', address: '10.9.0.81' }),
    device({ subnetId, name: 'drive-2', title: 'Drive 2', address: '10.9.0.82' }),
  );
  const second = (await bench.view(path)).devices[1]?.interfaces[0];
  const svg = await bench
    .call('get', `${path}/files/labels-svg?interface=${second?.id}`)
    .expect(200);
  expect(svg.headers['content-disposition']).toContain('drive-2 10.9.0.82.svg');
  expect((svg.body as Buffer).toString()).toContain('<title>Drive 2, drive-2, 10.9.0.82');
  const made = await begin(
    path,
    wish(['labels-png'], { scope: { cabinets: [], subnets: [], interfaces: [second?.id ?? ''] } }),
  );
  expect(await done(made)).toMatchObject({ state: 'ready', name: 'drive-2 10.9.0.82.png' });
  const nothing = await bench.call('get', `${path}/files/labels-svg?interface=nobody`).expect(409);
  expect((nothing.body as ErrorView).issues[0]?.code).toBe('package.nothing');
  await bench.call('get', `${path}/files/labels-svg?interface=not%20an%20id`).expect(400);
});
