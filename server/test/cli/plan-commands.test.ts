import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writePlanFile } from '@ipsonomo/core/formats';
import { firstHostOf, must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { docOfPlan, firstDoc, toDevice, toInterface, toPlan, toSubnet } from '@ipsonomo/core/plan';
import { names } from '../../src/cli/names';
import { each, type Command } from '../../src/cli/output';
import { checkPlan, diffPlans, printSchema, split } from '../../src/cli/plan';
import { rehearse } from '../../src/cli/rehearse';
import { route } from '../../src/cli/route';
import { switches } from '../../src/cli/switches';

function run(command: Command, ...inputs: readonly string[]) {
  const lines: unknown[] = [];
  const told: string[] = [];
  const isGood = command(inputs, {
    print: (line) => void lines.push(line),
    tell: (one) => void told.push(one),
  });
  return { isGood, lines, told };
}

const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-plans-'));
const file = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

const prefix = must(parsePrefix('10.4.7.0/24'));
const hall = toSubnet({ id: 'hall', name: 'Hall', prefix, gateway: firstHostOf(prefix) });
const drive = (address: string) =>
  toDevice({
    ...{ id: 'd', title: 'Drive', name: 'drive', kindId: 'belloch-drive-d4', way: 'keypad' },
    interfaces: [
      toInterface({
        ...{ id: 'at', deviceId: 'd', subnetId: 'hall', address: must(parseIpv4(address)) },
      }),
    ],
  });
const planFile = (name: string, address: string) =>
  file(
    name,
    writePlanFile({ name, doc: docOfPlan(toPlan({ subnets: [hall], devices: [drive(address)] })) }),
  );

test('check: one line a snag, and not good where one is wrong', () => {
  expect(run(checkPlan, planFile('good', '10.4.7.80'))).toEqual({
    ...{ isGood: true, lines: [], told: [] },
  });
  const bad = run(checkPlan, planFile('bad', '10.4.7.255'));
  expect(bad).toEqual({
    isGood: false,
    told: [],
    lines: [
      {
        ...{ rule: 'S-ADDRESS-BROADCAST', severity: 'wrong', where: 'interface at.address' },
        message: 'Drive has 10.4.7.255, the broadcast address of 10.4.7.0/24.',
      },
    ],
  });
});

test('split: a line a subnet, then what is left', () => {
  const needs = file(
    'needs',
    JSON.stringify([
      { name: 'Filling', devices: 40, growthPercent: 20 },
      { name: 'Packing', devices: 10, growthPercent: 0, fixed: '10.4.7.240/28' },
    ]),
  );
  expect(run(split, '10.4.7.0/24', needs)).toEqual({
    ...{ isGood: true, told: [] },
    lines: [
      { name: 'Filling', network: '10.4.7.128/26' },
      { name: 'Packing', network: '10.4.7.240/28' },
      { left: '10.4.7.0/25' },
      { left: '10.4.7.192/27' },
      { left: '10.4.7.224/28' },
    ],
  });
});

test('diff: a line an edit', () => {
  const [a, b] = [planFile('a', '10.4.7.80'), planFile('b', '10.4.7.81')];
  expect(run(diffPlans, a, b).lines).toEqual([
    {
      ...{ op: 'set', type: 'interface', id: 'at', field: 'address' },
      ...{ from: '10.4.7.80', to: '10.4.7.81' },
    },
  ]);
  expect(run(diffPlans, a, a)).toEqual({ isGood: true, lines: [], told: [] });
  const added = run(diffPlans, file('first', writePlanFile({ name: 'x', doc: firstDoc() })), a);
  expect(added.lines).toContainEqual(
    expect.objectContaining({ op: 'add', type: 'device', id: 'd' }),
  );
});

test('names: each use with its reason', () => {
  const { lines } = run(each(names), 'Pump_1', 'pump-1');
  expect(lines).toEqual([
    {
      name: 'Pump_1',
      host: { valid: false, why: expect.stringContaining('_') as string, instead: 'pump-1' },
      station: { valid: false, why: expect.stringContaining('P') as string, instead: 'pump-1' },
      dhcp: { valid: true },
      variable: { valid: true },
    },
    {
      ...{ name: 'pump-1', host: { valid: true }, station: { valid: true }, dhcp: { valid: true } },
      variable: { valid: false, why: expect.stringContaining('-') as string, instead: 'pump_1' },
    },
  ]);
});

test('switches: an address to positions and back', () => {
  const there = run(switches, 'wendle-station-20', '172.22.40.86');
  expect(there.lines).toMatchObject([{ positions: [0, 8, 6], value: 86 }]);
  expect(run(switches, 'wendle-station-20', '--read', '0,8,6').lines).toMatchObject([
    { value: 86, meaning: 'last-number' },
  ]);
});

const feed = toSubnet({ id: 'feed', name: 'Feed', prefix: must(parsePrefix('10.4.8.0/24')) });
const routed = (gateway: 'subnet' | 'none') => {
  const at = {
    id: 'r',
    deviceId: 'robot',
    subnetId: 'feed',
    address: must(parseIpv4('10.4.8.12')),
  };
  const names = { id: 'robot', title: 'Robot', name: 'robot', kindId: 'belloch-drive-d4' };
  const robot = toDevice({
    ...names,
    way: 'keypad',
    interfaces: [toInterface({ ...at, gateway })],
  });
  const subnets = [hall, { ...feed, gateway: must(parseIpv4('10.4.8.1')) }];
  const doc = docOfPlan(toPlan({ subnets, devices: [drive('10.4.7.80'), robot] }));
  return file(`routed-${gateway}`, writePlanFile({ name: 'routed', doc }));
};

test('route: a line a hop, there and back, then what it comes to and a cure', () => {
  const good = run(route, routed('subnet'), 'drive', '10.4.8.12');
  expect([good.isGood, good.lines.at(-1)]).toEqual([
    ...[true, { verdict: 'works', message: 'It works, there and back.' }],
  ]);
  expect(good.lines).toHaveLength(7);
  expect(good.lines[1]).toEqual({
    ...{ direction: 'there', host: 'Router of the site', in: '10.4.7.1', out: '10.4.8.1' },
    ...{ next: '10.4.8.12', from: '10.4.7.80', to: '10.4.8.12' },
  });
  const bad = run(route, routed('none'), 'Drive', 'robot');
  expect(bad.isGood).toBe(false);
  expect(bad.lines.at(-1)).toMatchObject({
    ...{ verdict: 'back', reason: 'gateway-missing', cure: 'Correct the gateway to 10.4.8.1' },
  });
});

test('route: by an address that a router translates, host for host', () => {
  const inside = { ...feed, realmId: 'machine', gateway: must(parseIpv4('10.4.8.1')) };
  const at = (id: string, deviceId: string, subnetId: string, address: string) =>
    toInterface({ id, deviceId, subnetId, address: must(parseIpv4(address)) });
  const router = toDevice({
    ...{
      id: 'router',
      title: 'Router',
      name: 'router',
      kindId: 'eskmere-router-4',
      way: 'web-page',
    },
    interfaces: [at('r1', 'router', 'hall', '10.4.7.1'), at('r2', 'router', 'feed', '10.4.8.1')],
    translations: [
      {
        kind: 'one-to-one',
        inside: must(parsePrefix('10.4.8.0/24')),
        outside: must(parsePrefix('10.99.8.0/24')),
      },
    ],
  });
  const robot = toDevice({
    ...{ id: 'robot', title: 'Robot', name: 'robot', kindId: 'belloch-drive-d4', way: 'keypad' },
    interfaces: [at('r', 'robot', 'feed', '10.4.8.12')],
  });
  const plan = toPlan({ subnets: [hall, inside], devices: [drive('10.4.7.80'), router, robot] });
  const realms = [...plan.realms, { id: 'machine', name: 'Machine', note: '' }];
  const text = writePlanFile({ name: 'translated', doc: docOfPlan({ ...plan, realms }) });
  const told = run(route, file('translated', text), 'drive', '10.99.8.12');
  expect([told.isGood, told.lines.at(-1)]).toMatchObject([true, { verdict: 'works' }]);
  expect(told.lines.at(-2)).toMatchObject({ direction: 'back', from: '10.99.8.12' });
  expect(run(route, file('translated', text), 'drive', '10.99.8.13').isGood).toBe(false);
});

test('schema prints what ajv can read', () => {
  expect(run(printSchema).lines).toMatchObject([{ title: 'Ipsonomo plan', type: 'object' }]);
});

const NEEDS = file('some', '[{"name":"A","devices":300}]');

test.each<[string, Command, readonly string[], RegExp]>([
  ['no plan', checkPlan, [join(folder, 'none')], /There is no file/],
  ['no JSON', checkPlan, [file('text', 'hello')], /is no JSON/],
  ['another file', checkPlan, [file('other', '{}')], /no plan of Ipsonomo/],
  ['host bits', split, ['10.4.7.9/24', NEEDS], /Its network is 10\.4\.7\.0\/24/],
  ['no needs', split, ['10.4.7.0/24', join(folder, 'none')], /There is no file/],
  ['needs of no shape', split, ['10.4.7.0/24', file('n', '[{"name":1}]')], /needs\.0\.name/],
  ['a need that does not fit', split, ['10.4.7.0/24', NEEDS], /A needs a \/23; .* is a \/24/],
  ['no kind', switches, ['nobody', '10.4.7.8'], /no kind "nobody" .*wendle-station-20/],
  ['no switches', switches, ['belloch-drive-d4', '10.4.7.8'], /has no switches/],
  ['no such device', route, [planFile('r', '10.4.7.80'), 'drive', 'nobody'], /no device nobody/],
  ['no address', switches, ['wendle-station-20', '10.4.7'], /10\.4\.7/],
  ['too few positions', switches, ['wendle-station-20', '--read', '0,8'], /3/],
])('%s is told in a sentence', (_name, command, inputs, sentence) => {
  const { isGood, told } = run(command, ...inputs);
  expect([isGood, told[0]]).toEqual([false, expect.stringMatching(sentence)]);
});

test('rehearse: how long the round takes, by cabinet; mistakes by a seed, the same ones each time', () => {
  const path = planFile('rehearse', '10.4.7.80');
  const plain = run(rehearse, path);
  expect(plain.isGood).toBe(true);
  expect(plain.lines).toMatchObject([
    { cabinet: '', calls: 1 },
    { calls: 1, people: 1, waited: { laptop: 0, factory: 0 } },
  ]);
  const faulty = run(rehearse, path, '--people', '2', '--faults', '7');
  expect(faulty.lines).toEqual(run(rehearse, path, '--faults', '7', '--people', '2').lines);
  expect(faulty.lines[0]).toHaveProperty('mistake');
  expect(faulty.lines.at(-1)).toMatchObject({ people: 2 });
});

test.each([
  [['--people', '5'], /“--people 5” is not understood: --people takes 1 to 4/],
  [['--people'], /“--people” is not understood/],
  [['--faults', 'many'], /“--faults many” is not understood/],
  [['soon'], /“soon” is not understood/],
])('rehearse with %j is told in a sentence', (words, said) => {
  const { isGood, lines, told } = run(rehearse, planFile('asked', '10.4.7.80'), ...words);
  expect([isGood, lines]).toEqual([false, []]);
  expect(told.join('\n')).toMatch(said);
});
