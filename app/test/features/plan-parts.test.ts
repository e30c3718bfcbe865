import type { DeviceInfo } from '@ipsonomo/core/api';
import { must, parsePrefix, type Issue } from '@ipsonomo/core/net';
import { docOfPlan, readThing, shapeOf, THING_TYPES, toPlan, toSubnet } from '@ipsonomo/core/plan';
import { snagsOf } from '@ipsonomo/core/snags';
import { keyOfLine, planLines } from '../../src/features/plan/plan-lines';
import { apart, byCause, causeOf } from '../../src/features/snags/causes';
import { moveBy, moveTo, rectOf, START } from '../../src/features/sheet/cursor';
import { partsOf, rowsOfTape } from '../../src/features/plan/subnet/tape';
import { draftOfSubnet, readSubnetDraft } from '../../src/features/plan/subnet/subnet-draft';
import { subnetEdits } from '../../src/features/plan/subnet/subnet-edits';
import { emptyOf, formOf } from '../../src/features/plan/thing/schema';

const SIZE = { rows: 10, columns: 4 };
const key = (name: string, more: object = {}) => ({ key: name, shift: false, far: false, ...more });

test.each([
  ['ArrowDown', {}, [1, 0]],
  ['ArrowUp', {}, [0, 0]],
  ['ArrowRight', {}, [0, 1]],
  ['ArrowRight', { far: true }, [0, 3]],
  ['ArrowDown', { far: true }, [9, 0]],
  ['PageDown', {}, [9, 0]],
  ['End', {}, [0, 3]],
  ['End', { far: true }, [9, 3]],
  ['Tab', {}, [0, 1]],
  ['Tab', { shift: true }, [0, 0]],
])('the key %s with %j goes to %j', (name, more, [row, column]) => {
  expect(moveBy(START, key(name, more), SIZE)).toMatchObject({ row, column });
});

test('shift keeps the other corner; everything is chosen at once; another key moves nothing', () => {
  const one = moveTo(START, 2, 1, SIZE);
  const more = moveBy(one, key('ArrowDown', { shift: true }), SIZE);
  expect(more && rectOf(more)).toEqual({ top: 2, bottom: 3, left: 1, right: 1 });
  const all = moveBy(one, key('a', { far: true }), SIZE);
  expect(all && rectOf(all)).toEqual({ top: 0, bottom: 9, left: 0, right: 3 });
  expect(moveBy(one, key('x'), SIZE)).toBeUndefined();
});

const net = (text: string) => must(parsePrefix(text));

test.each([
  ['10.0.0.0/24', 26, 0, 25],
  ['10.0.0.64/26', 7, 6, 12],
  ['10.0.0.4/30', 1, 0, 0],
])('the tape of %s has %i rows, from %i to %i', (network, count, first, last) => {
  const rows = rowsOfTape(net(network));
  expect([rows.length, rows[0]?.tens, rows.at(-1)?.tens]).toEqual([count, first, last]);
  const there = rows.flatMap((row) => row.cells).filter((one) => one !== undefined);
  expect(there.length).toBe(2 ** (32 - net(network).length));
});

test.each([
  ['10.0.0.0/8', 16, 12],
  ['10.0.0.0/22', 4, 24],
  ['10.0.0.0/23', 2, 24],
])('%s is taken apart into %i parts of /%i', (network, count, length) => {
  const parts = partsOf(net(network));
  expect([parts.length, parts[0]?.length]).toEqual([count, length]);
});

test('snags stand under their cause, accepted ones apart', () => {
  const prefix = net('192.168.1.0/24');
  const snags = snagsOf(toPlan({ subnets: [toSubnet({ id: 's', name: 'S', prefix })] }));
  expect(byCause(snags).map((one) => one.cause)).toEqual(['Subnets and blocks']);
  expect(apart(snags, new Set(['S-SUBNET-HOME@s.prefix'])).open).toEqual([]);
  expect(causeOf('S-ADDRESS-TWICE')).toBe('Addresses');
  expect(causeOf('S-SIZE-UNITS')).toMatch(/^Connections/);
});

test.each(THING_TYPES)('a form can be made of every field of a %s', (type) => {
  const { schema } = shapeOf(type);
  expect(formOf(schema).kind).toBe('object');
  const empty = emptyOf(schema);
  const issues: Issue[] = [];
  readThing(type, empty, '', issues);
  // What is empty lacks nothing but what a person has to say: no field has the wrong type.
  const wrong = issues.filter(({ facts }) =>
    ['missing', 'unknown'].includes(String(facts && 'misfit' in facts ? facts.misfit : '')),
  );
  expect(wrong).toEqual([]);
});

test('the form of a subnet changes what was typed, and overwrites nothing that others wrote since', () => {
  const opened = toSubnet({ id: 's', name: 'Hall', prefix: net('10.4.7.0/24'), vlan: 7 });
  const doc = docOfPlan(toPlan({ subnets: [{ ...opened, vlan: 8, purpose: 'theirs' }] }));
  const typed = (fields: object) =>
    subnetEdits(doc, opened, readSubnetDraft(opened, { ...draftOfSubnet(opened), ...fields }), 0);
  const told = (fields: object) =>
    typed(fields)?.edits.map((one) => (one.op === 'set' ? [one.field, one.from, one.to] : []));
  expect(told({ name: 'Hall 7' })).toEqual([['name', 'Hall', 'Hall 7']]);
  // The same field: it goes out with what was seen, so that the server can hold both side by side.
  expect(told({ vlan: '9' })).toEqual([['vlan', 7, 9]]);
  expect(typed({ network: '10.5.7.0/24' })?.renumbering?.rows).toEqual([]);
  expect(told({ network: '10.5.7.0/24' })).toContainEqual(['prefix', '10.4.7.0/24', '10.5.7.0/24']);
});

test('the plan line by line: a subnet, a dozen of its devices, more at a touch; one without any says so', () => {
  const subnet = (id: string) =>
    toSubnet({ ...{ id, name: id, purpose: '' }, prefix: must(parsePrefix('10.0.0.0/16')) });
  const device = (id: string, subnetId: string) =>
    ({ id, interfaces: [{ id: `${id}-at`, subnetId }] }) as unknown as DeviceInfo;
  const subnets = ['hall', 'yard'].map(subnet);
  const devices = Array.from({ length: 80 }, (_, at) => device(`d${at}`, 'hall'));
  const of = (more: ReadonlyMap<string, number>, own = devices) => {
    const lines = planLines(subnets, own, more);
    const keys = lines.map(keyOfLine);
    expect(new Set(keys).size).toBe(keys.length);
    return keys.filter((key) => !/^d\d/.test(key) || key === 'd0' || key === 'd61');
  };
  const heads = { hall: 'subnet hall', yard: ['subnet yard', 'empty yard'] };
  expect(of(new Map())).toEqual([heads.hall, 'd0', 'more hall', ...heads.yard]);
  expect(of(new Map([['hall', 50]]))).toEqual([
    heads.hall,
    'd0',
    'd61',
    'more hall',
    ...heads.yard,
  ]);
  expect(of(new Map([['hall', 100]]))).toEqual([heads.hall, 'd0', 'd61', ...heads.yard]);
  expect(of(new Map(), [])).toEqual([heads.hall, 'empty hall', ...heads.yard]);
});
