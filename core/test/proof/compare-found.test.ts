import { parseIpv4, parseMac, must } from '../../src/net';
import { findShelfKind, type Way } from '../../src/plan';
import {
  compareFound,
  differencesIn,
  isOtherRevision,
  passedIn,
  proofFacts,
  requiredChecks,
  type AssemblyRole,
  type CheckName,
  type Found,
  type PlannedProof,
  type Said,
} from '../../src/proof';
import type { Station } from '../../src/wire';

const mac = (text: string) => must(parseMac(text));
const ip = (text: string) => must(parseIpv4(text));
const ONE = mac('02:00:5e:00:53:11');
const OTHER = mac('02:00:5e:00:53:22');
const ENIP = { port: 44_818, name: 'EtherNet/IP' };
const offer = (title: string, ident: number | undefined) => ({
  ...{ title, firstSlot: 1, lastSlot: 8, inBytes: 1, outBytes: 0, ident },
});
const open = { ...ENIP, state: 'open' } as const;

const OFFERS = [
  ...[offer('8 inputs', 0x21), offer('8 outputs', 0x22), offer('counter', undefined)],
];

const station = (fields: Partial<Station> = {}): Station => ({
  ...{ mac: ONE, name: 'fh2-drive-1', type: 'Block 8', vendor: 9, device: 8 },
  ...{ address: undefined, ...fields },
});
const addressed = (gateway: string) =>
  station({
    address: {
      ...{ address: ip('10.0.0.7'), mask: ip('255.255.0.0') },
      ...{ gateway: ip(gateway), state: 'set' },
    },
  });

const planned = (fields: Partial<PlannedProof> = {}): PlannedProof => ({
  ...{ mac: ONE, checks: ['arp', 'ping', 'identity', 'services'], stationName: 'fh2-drive-1' },
  ...{ identity: { vendor: 1, type: 2, product: 3 }, orderNumber: 'D-4', revision: '2.1' },
  ...{ mask: ip('255.255.255.0'), gateway: ip('10.0.0.1') },
  ...{ serial: '', services: [ENIP], station: undefined, assemblies: [], modules: [] },
  ...{ offers: OFFERS, ...fields },
});
const said = (fields: Partial<Said> = {}): Said => ({
  ...{ by: 'EtherNet/IP', identity: { vendor: 1, type: 2, product: 3 }, product: 'Drive' },
  ...{ orderNumber: '', revision: '2.4', serial: '0000abcd', hardware: '' },
  ...{ connection: 'running', ...fields },
});
const found = (fields: Partial<Found> = {}): Found => ({
  ...{ macs: [ONE], pingMillis: 0.84, station: undefined, said: said(), page: undefined },
  ...{ network: undefined, services: [open], modules: undefined, assemblies: [], ...fields },
});

const slot = (at: number, title: string) => ({ slot: at, title });
const told = (at: number, ident: number) => ({ slot: at, ident, name: '' });
const data = (role: AssemblyRole, instance: number, bytes: number | undefined) => ({
  ...{ role, instance, bytes },
});
const has = (role: AssemblyRole, instance: number, bytes: number | undefined, isThere = true) => ({
  ...{ role, instance, bytes, isThere },
});

describe('planned and found side by side', () => {
  test.each<
    [string, Partial<PlannedProof>, Partial<Found>, readonly string[], readonly CheckName[]]
  >([
    ['all as planned', {}, {}, [], ['arp', 'ping', 'identity', 'services']],
    // What another device says of itself is nothing about the planned one.
    ['another device', {}, { macs: [OTHER], said: said({ revision: '9' }) }, ['mac'], []],
    ['two devices', {}, { macs: [ONE, OTHER] }, ['several'], []],
    ['no MAC bound', { mac: undefined }, {}, ['unbound'], []],
    ['no ping', {}, { pingMillis: undefined }, ['no-ping'], ['arp', 'identity', 'services']],
    [
      'a kind that answers no ping',
      { checks: ['arp'] },
      { pingMillis: undefined, said: undefined, services: [] },
      [],
      ['arp'],
    ],
    [
      'of another kind, revision and serial number',
      { serial: '0000AAAA' },
      { said: said({ identity: { vendor: 1, type: 2, product: 4 }, revision: '3.1' }) },
      ['kind', 'revision', 'serial'],
      ['arp', 'ping', 'services'],
    ],
    [
      'its kind stands for the revision of its hardware, and its firmware is another',
      { revision: '4' },
      { said: said({ revision: '2.4', hardware: '4' }) },
      [],
      ['arp', 'ping', 'identity', 'services'],
    ],
    [
      'serial numbers are the same in capitals',
      { serial: '0000ABCD' },
      {},
      [],
      ['arp', 'ping', 'identity', 'services'],
    ],
    [
      'a mask of another site, and no gateway: they show only from another subnet',
      {},
      { network: { mask: ip('255.255.0.0'), gateway: ip('0.0.0.0') } },
      ['mask', 'gateway'],
      ['ping', 'identity', 'services'],
    ],
    [
      'mask and gateway as planned',
      {},
      { network: { mask: ip('255.255.255.0'), gateway: ip('10.0.0.1') } },
      [],
      ['arp', 'ping', 'identity', 'services'],
    ],
    [
      'another order number over Modbus, which has no numbers for maker and type',
      {},
      { said: said({ by: 'Modbus/TCP', identity: undefined, orderNumber: 'D-5' }) },
      ['article'],
      ['arp', 'ping', 'services'],
    ],
    [
      'its service is refused: then it cannot say who it is, which is no second difference',
      {},
      { said: undefined, services: [{ ...ENIP, state: 'refused' }] },
      ['service'],
      ['arp', 'ping'],
    ],
    [
      'open, but nothing that can be read',
      {},
      { said: undefined },
      ['identity'],
      ['arp', 'ping', 'services'],
    ],
    // No right to open conversations on this adapter: that is no word about the device.
    ['could not be asked', {}, { said: undefined, services: [] }, [], ['arp', 'ping']],
    [
      'a name over layer 2 is compared letter by letter',
      { checks: ['arp', 'name'], services: [] },
      { station: station({ name: 'FH2-drive-1' }), said: undefined, services: [] },
      ['name'],
      ['arp'],
    ],
    [
      'maker and device over layer 2 tell who it is',
      { checks: ['arp', 'name', 'identity'], station: { vendor: 9, device: 8 }, services: [] },
      { station: station(), said: undefined, services: [] },
      [],
      ['arp', 'name', 'identity'],
    ],
    [
      'another kind by its word over layer 2',
      { checks: ['arp', 'name', 'identity'], station: { vendor: 9, device: 4 }, services: [] },
      { station: station(), said: undefined, services: [] },
      ['kind'],
      ['arp', 'name'],
    ],
    [
      'mask and gateway over layer 2; its own address is no gateway',
      { checks: ['arp'], services: [] },
      { station: addressed('10.0.0.7'), said: undefined, services: [] },
      ['mask', 'gateway'],
      [],
    ],
    [
      'R-MODULES: a module of another number, one that is missing and one too many',
      { modules: [slot(1, '8 inputs'), slot(2, '8 outputs'), slot(3, '8 outputs')] },
      { modules: [told(0, 0x10), told(1, 0x21), told(2, 0x21), told(4, 0x22)] },
      ['module'],
      ['arp', 'ping', 'services'],
    ],
    [
      // Nothing is known of that number, and nothing of how the planned one is numbered.
      'a module that cannot be told from the planned one',
      { modules: [slot(1, 'counter')] },
      { modules: [told(1, 0x77)] },
      [],
      ['arp', 'ping', 'identity', 'services'],
    ],
    [
      'R-SIZES: sizes that differ, and an instance that is not there',
      { assemblies: [data('in', 101, 16), data('out', 102, 8), data('config', 103, undefined)] },
      {
        assemblies: [has('in', 101, 32), has('out', 102, 8), has('config', 103, undefined, false)],
      },
      ['size', 'instance'],
      ['arp', 'ping', 'services'],
    ],
    [
      'a size that is not told is no difference',
      { assemblies: [data('in', 101, 16)] },
      { assemblies: [has('in', 101, undefined)] },
      [],
      ['arp', 'ping', 'identity', 'services'],
    ],
    [
      'no name told',
      { checks: ['name'], services: [] },
      { said: undefined, services: [] },
      ['name'],
      [],
    ],
  ])('%s', (_name, plan, seen, whats, passed) => {
    const compared = compareFound(planned(plan), found(seen));
    expect(compared.differences.map(({ what }) => what)).toEqual(whats);
    expect(compared.passed).toEqual(passed);
  });

  test('as facts of an evidence and back', () => {
    const seen = found({ said: said({ revision: '1.9' }), page: 'Drive 1' });
    const compared = compareFound(planned({ serial: '12' }), seen);
    const facts = proofFacts(seen, compared);
    expect(facts).toMatchObject({
      ...{ pingMillis: 0.8, says: 'EtherNet/IP', serial: '0000abcd', page: 'Drive 1' },
      ...{ what: 'revision', services: '44818 open', connection: 'running' },
    });
    expect(differencesIn(facts)).toEqual(compared.differences);
    expect(passedIn(facts)).toEqual(compared.passed);
  });

  test('modules and sizes are told in words, and kept', () => {
    const seen = found({
      modules: [told(0, 0x10), told(1, 0x22), told(2, 0x99)],
      assemblies: [has('in', 101, 32), has('out', 102, undefined, false)],
    });
    const plan = planned({
      modules: [slot(1, '8 inputs')],
      assemblies: [data('in', 101, 16), data('out', 102, 8)],
    });
    const compared = compareFound(plan, seen);
    expect(compared.differences).toEqual([
      {
        ...{ what: 'module', expected: 'slot 1: 8 inputs; slot 2: empty' },
        found: 'slot 1: 8 outputs; slot 2: module 0x00000099',
      },
      { what: 'size', expected: 'in 16', found: 'in 32' },
      { what: 'instance', expected: 'out 102', found: 'none' },
    ]);
    expect(proofFacts(seen, compared, OFFERS)).toMatchObject({
      modules: 'slot 1: 8 outputs; slot 2: module 0x00000099',
      ...{ 'in-instance': 101, in: 32, 'out-instance': 'none' },
    });
  });

  test('several services that do not answer are one difference, and none of them is lost', () => {
    const page = { port: 80, name: 'web page' };
    const { differences } = compareFound(
      planned({ services: [ENIP, page] }),
      found({
        said: undefined,
        services: [
          { ...ENIP, state: 'refused' },
          { ...page, state: 'silent' },
        ],
      }),
    );
    expect(differences).toEqual([
      {
        ...{ what: 'service', expected: 'EtherNet/IP at port 44818; web page at port 80' },
        found: 'refused; no answer',
      },
    ]);
  });

  test('facts as they were kept before checks had names', () => {
    const old = { what: 'mac', expected: 'one', found: 'other' };
    expect(differencesIn(old)).toEqual([old]);
    expect(passedIn({ pingMillis: 2 })).toEqual(['arp', 'ping']);
  });
});

test.each([
  ['2.1', '2.1', false],
  ['2.1', '2.7', false],
  ['2.7', '2.1', true],
  ['2.1', '3.1', true],
  ['3', '3.9', false],
  ['', '4.1', false],
  ['V1.4', '1.4', false],
  ['any', '1.4', false],
])('R-REVISION: planned %s, found %s', (want, has, differs) => {
  expect(isOtherRevision(want, has)).toBe(differs);
});

test.each<[string, Way, readonly CheckName[]]>([
  ['tarnwick-valves-16', 'bootp', ['arp', 'ping', 'identity', 'services']],
  ['eldrup-block-8', 'layer2-name', ['arp', 'ping', 'name', 'identity']],
  ['fennrick-camera-c1', 'web-page', ['arp', 'ping', 'services']],
  ['strathan-terminal-4', 'dhcp-name', ['arp', 'ping', 'identity', 'services']],
  ['nobody-knows-it', 'bootp', ['arp', 'ping']],
])('R-PROVEN: what %s by %s has to show', (kindId, way, checks) => {
  const required = requiredChecks(findShelfKind(kindId), way);
  expect(required.map(({ check }) => check)).toEqual(checks);
});

test('R-PROVEN: a kind known not to answer ping is not asked for one', () => {
  const kind = findShelfKind('eldrup-block-8');
  const quiet = kind && { ...kind, answersPing: false };
  const required = requiredChecks(quiet, 'layer2-name').map(({ check }) => check);
  expect(required).toEqual(['arp', 'name', 'identity']);
});
