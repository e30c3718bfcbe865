import { formatIpv4, must, parseIpv4, parsePrefix } from '../../src/net';
import {
  addressNow,
  checkAddress,
  findShelfKind,
  nextLoanEnd,
  proposeLoan,
  toDevice,
  toInterface,
  toPlan,
  toSubnet,
  type Interface,
} from '../../src/plan';
import { snagsOf } from '../../src/snags';

// R-LOAN: an address for a while, beside the planned one.

const ip = (text: string) => must(parseIpv4(text));
const hall = toSubnet({ id: 'hall', name: 'Hall', prefix: must(parsePrefix('172.22.40.0/24')) });
const at = (id: string, address: string, loan?: Interface['loan']): Interface =>
  toInterface({ id, deviceId: id, subnetId: 'hall', address: ip(address), loan });
const device = (one: Interface) => ({
  ...toDevice({
    id: one.id,
    title: one.id,
    name: one.id,
    kindId: 'dunvarrick-drive-m',
    way: 'bootp',
  }),
  interfaces: [one],
});
const lent = (address: string, until: number) => ({ address: ip(address), until });
const drive = device(at('drive', '172.22.40.85', lent('172.22.40.90', 1000)));
const other = device(at('other', '172.22.40.86'));
const plan = toPlan({ subnets: [hall], devices: [drive, other] });

test.each([
  ['before its time is over', 999, '172.22.40.90'],
  ['at its end', 1000, '172.22.40.85'],
  ['after it', 5000, '172.22.40.85'],
])('%s', (_when, now, address) => {
  expect(formatIpv4(addressNow(drive.interfaces[0] as Interface, now))).toBe(address);
});

test('the next end is the earliest of those that go on', () => {
  expect(nextLoanEnd(plan, 0)).toBe(1000);
  expect(nextLoanEnd(plan, 1000)).toBe(Infinity);
  expect(nextLoanEnd(toPlan({ subnets: [hall], devices: [other] }), 0)).toBe(Infinity);
});

test('what is lent is taken: not proposed, refused to others, and told where two have it', () => {
  const proposed = proposeLoan(plan, other, other.interfaces[0] as Interface, 0);
  expect(findShelfKind('dunvarrick-drive-m')?.role).toBe('drives');
  expect([ip('172.22.40.85'), ip('172.22.40.86'), ip('172.22.40.90')]).not.toContain(proposed);
  expect(checkAddress(plan, hall, ip('172.22.40.90'))).toMatchObject([{ code: 'address.taken' }]);
  expect(checkAddress(plan, hall, ip('172.22.40.90'), 'drive')).toEqual([]);
  const twice = toPlan({ subnets: [hall], devices: [drive, device(at('third', '172.22.40.90'))] });
  const found = snagsOf(twice).find(({ rule }) => rule === 'S-ADDRESS-TWICE');
  expect(found).toMatchObject({ facts: { address: '172.22.40.90', devices: 'drive and third' } });
});
