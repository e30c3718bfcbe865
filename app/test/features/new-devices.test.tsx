import { act, renderHook } from '@testing-library/react';
import { useNewDevices } from '../../src/features/plan/add/use-new-devices';
import { deviceInfo, jobView, planOfView } from '../world';

const HALL = {
  ...{ id: 'hall', name: 'Filter hall', network: '172.22.40.0/24', gateway: '172.22.40.1' },
  ...{ vlan: null, purpose: '' },
  bands: [{ role: 'io', first: '172.22.40.100', last: '172.22.40.102' }] as const,
};
const plan = planOfView({
  ...jobView([deviceInfo({ name: 'fh2-valves-1' }, { address: '172.22.40.100' })]),
  subnets: [HALL],
});

function open(count: string) {
  const { result } = renderHook(() => useNewDevices('job', plan));
  act(() => result.current.change({ kindId: 'tarnwick-valves-16' }));
  act(() => result.current.change({ cabinet: 'FH2' }));
  act(() => result.current.setCount(count));
  return result;
}

const drafts = (form: ReturnType<typeof open>['current']) =>
  form.drafts.map(({ name, address }) => [name, address]);

test('each gets a name and the next free address of its band', () => {
  const form = open('2');
  expect(drafts(form.current)).toEqual([
    ['fh2-valves-2', '172.22.40.101'],
    ['fh2-valves-3', '172.22.40.102'],
  ]);
  expect(form.current.isReady).toBe(true);
});

test('a band that is full is told', () => {
  const form = open('3');
  expect([form.current.drafts.length, form.current.isFull]).toEqual([2, true]);
});

test.each([
  ['172.22.40.300', 'ipv4.octet'],
  ['172.22.40.100', 'address.taken'],
  ['172.22.41.7', 'address.outside'],
  ['172.22.40.1', 'address.gateway'],
])('a correction to %s is told as %s, and nothing can be added', (address, code) => {
  const form = open('2');
  act(() => form.current.correct(1, { address }));
  expect(form.current.drafts[1]?.addressIssue?.code).toBe(code);
  expect(form.current.isReady).toBe(false);
});

test('a correction that takes the address of the one above is told', () => {
  const form = open('2');
  act(() => form.current.correct(1, { address: '172.22.40.101', name: 'fh2-valves-2' }));
  expect(form.current.drafts[1]).toMatchObject({
    addressIssue: { code: 'address.taken' },
    nameIssue: { code: 'name.taken' },
  });
});

test.each(['', '0', '-1', '1e3', 'two'])('%j devices are none', (count) => {
  expect(open(count).current).toMatchObject({ drafts: [], isReady: false });
});

test('twenty of a kind by patterns of their own, each a device with its interface', () => {
  const form = open('2');
  act(() => form.current.change({ titles: 'Sorting valve {nn}', pattern: 'sl-{stem}-{nnn}' }));
  expect(form.current.drafts).toMatchObject([
    { title: 'Sorting valve 01', name: 'sl-valves-001', address: '172.22.40.101' },
    { title: 'Sorting valve 02', name: 'sl-valves-002', address: '172.22.40.102' },
  ]);
  expect(form.current.edits()).toMatchObject([
    { op: 'add', type: 'device', thing: { title: 'Sorting valve 01', cabinet: 'FH2' } },
    { op: 'add', type: 'interface', thing: { subnetId: 'hall', address: '172.22.40.101' } },
    { op: 'add', type: 'device', thing: { name: 'sl-valves-002', isNameTyped: false } },
    { op: 'add', type: 'interface' },
  ]);
});

test.each([
  ['{shelf}-{n}', 'pattern.word'],
  ['sl-{n', 'pattern.brace'],
])('the pattern %s is told as %s, and the plan’s holds', (pattern, code) => {
  const form = open('1');
  act(() => form.current.change({ pattern }));
  expect(form.current.wrongPattern?.code).toBe(code);
  expect(drafts(form.current)).toEqual([['fh2-valves-2', '172.22.40.101']]);
  expect(form.current.isReady).toBe(false);
});
