import {
  compareFound,
  differencesIn,
  findShelfKind,
  isOtherRevision,
  parseIpv4,
  parseMac,
  must,
  passedIn,
  proofFacts,
  requiredChecks,
  type CheckName,
  type Found,
  type PlannedProof,
  type Said,
  type Way,
} from '../../src';

const mac = (text: string) => must(parseMac(text));
const ip = (text: string) => must(parseIpv4(text));
const ONE = mac('02:00:5e:00:53:11');
const OTHER = mac('02:00:5e:00:53:22');
const ENIP = { port: 44_818, name: 'EtherNet/IP' };
const open = { ...ENIP, state: 'open' } as const;

const planned = (fields: Partial<PlannedProof> = {}): PlannedProof => ({
  ...{ mac: ONE, checks: ['arp', 'ping', 'identity', 'services'], stationName: 'fh2-drive-1' },
  ...{ identity: { vendor: 1, type: 2, product: 3 }, orderNumber: 'D-4', revision: '2.1' },
  ...{ mask: ip('255.255.255.0'), gateway: ip('10.0.0.1') },
  ...{ serial: '', services: [ENIP], ...fields },
});
const said = (fields: Partial<Said> = {}): Said => ({
  ...{ by: 'EtherNet/IP', identity: { vendor: 1, type: 2, product: 3 }, product: 'Drive' },
  ...{ orderNumber: '', revision: '2.4', serial: '0000abcd', isUsed: false, ...fields },
});
const found = (fields: Partial<Found> = {}): Found => ({
  ...{ macs: [ONE], pingMillis: 0.84, stationName: undefined, said: said(), page: undefined },
  ...{ network: undefined, services: [open], ...fields },
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
      { stationName: 'FH2-drive-1', said: undefined, services: [] },
      ['name'],
      ['arp'],
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
      ...{ what: 'revision', services: '44818 open', used: 'no' },
    });
    expect(differencesIn(facts)).toEqual(compared.differences);
    expect(passedIn(facts)).toEqual(compared.passed);
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
  ['eldrup-block-8', 'layer2-name', ['arp', 'ping', 'name']],
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
  expect(requiredChecks(quiet, 'layer2-name').map(({ check }) => check)).toEqual(['arp', 'name']);
});
