import { snagSentence } from '@ipsonomo/language';
import { docOfPlan, applyEdits, planOf, type Plan } from '../../src/plan';
import { mendOf, SNAG_RULE_IDS, SNAG_RULES, snagsOf, type SnagRule } from '../../src/snags';
import {
  ofDrive,
  connected,
  subnets,
  inOtherRealm,
  reference,
  line,
  cable,
  many,
  routed,
  translated,
  second,
  small,
  camera,
  block,
  factoryAt,
  ownCamera,
  gatewayAt,
  named,
  slots,
  stationIn,
} from './spoil';
import {
  at,
  CONTROLLER,
  device,
  DRIVE,
  FEED,
  HALL,
  ip,
  mac,
  moved,
  net,
  OTHER,
  ownKind,
  PLAN,
  STATION,
  withDevices,
  withHall,
} from './world';

/** For each rule: one plan that fires it, and one near miss that does not. */
const CASES: Readonly<Record<SnagRule, readonly [fires: Plan, near: Plan]>> = {
  'S-FOUND': [withHall({ found: 'heard in cell.pcap' }), PLAN],
  'S-SUBNET-OVERLAP': [subnets('172.22.40.128/25'), subnets('172.22.42.128/25')],
  'S-SUBNET-NEVER': [subnets('239.1.0.0/24'), subnets('10.239.1.0/24')],
  'S-SUBNET-LINK-LOCAL': [subnets('169.254.7.0/24'), subnets('10.254.7.0/24')],
  'S-SUBNET-DOCUMENTATION': [subnets('203.0.113.0/24'), subnets('10.0.113.0/24')],
  'S-SUBNET-SHARED': [subnets('100.64.0.0/24'), subnets('10.64.0.0/24')],
  'S-SUBNET-PUBLIC': [
    subnets('172.32.1.0/24'),
    withHall({ prefix: net('172.22.40.0/24'), note: '' }),
  ],
  'S-SUBNET-HOME': [subnets('192.168.1.0/24'), subnets('192.168.3.0/24')],
  'S-SUBNET-BLOCK': [block('10.20.0.0/16'), block('172.22.0.0/16')],
  'S-SUBNET-SMALL': [small(15, '10.9.0.0/28'), small(14, '10.9.0.0/28')],
  'S-SUBNET-GROWTH': [small(13, '10.9.0.0/28'), small(12, '10.9.0.0/28')],
  'S-VLAN-TWICE': [withHall({ vlan: 41 }), withHall({ vlan: 42 })],
  'S-REALM-GONE': [withHall({ realmId: 'gone' }), PLAN],
  'S-RANGE-OUTSIDE': [
    withHall({ held: [{ first: ip('172.22.40.250'), last: ip('172.22.41.5'), note: 'IT' }] }),
    withHall({ held: [{ first: ip('172.22.40.250'), last: ip('172.22.40.254'), note: 'IT' }] }),
  ],
  'S-BAND-OVERLAP': [
    withHall({
      bands: [
        { role: 'io', first: ip('172.22.40.100'), last: ip('172.22.40.149') },
        { role: 'drives', first: ip('172.22.40.149'), last: ip('172.22.40.160') },
      ],
    }),
    withHall({
      bands: [
        { role: 'io', first: ip('172.22.40.100'), last: ip('172.22.40.149') },
        { role: 'drives', first: ip('172.22.40.150'), last: ip('172.22.40.160') },
      ],
    }),
  ],
  'S-BAND-FULL': [
    withHall({ bands: [{ role: 'drives', first: ip('172.22.40.80'), last: ip('172.22.40.81') }] }),
    withHall({ bands: [{ role: 'drives', first: ip('172.22.40.80'), last: ip('172.22.40.82') }] }),
  ],
  'S-GATEWAY-OUTSIDE': [
    withHall({ gateway: ip('172.22.41.1') }),
    withHall({ gateway: ip('172.22.40.254') }),
  ],
  'S-GATEWAY-DEVICE': [moved(DRIVE, { address: ip('172.22.40.1') }), PLAN],
  'S-GATEWAY-MISSING': [
    moved(DRIVE, { subnetId: 'feed', address: ip('172.22.41.80'), gateway: 'none' }),
    moved(DRIVE, { subnetId: 'feed', address: ip('172.22.41.80') }),
  ],
  'S-GATEWAY-NOBODY': [withHall({ gateway: ip('172.22.40.254') }), PLAN],
  'S-FACTORY-WIRE': [
    withDevices(camera('c1', '172.22.40.150'), camera('c2', '172.22.40.151')),
    withDevices(camera('c1', '172.22.40.150')),
  ],
  'S-BLOCK-NEED': [block('172.22.40.0/28', 14), block('172.22.40.0/28', 13)],
  'S-SUBNET-GONE': [moved(DRIVE, { subnetId: 'gone' }), PLAN],
  'S-ADDRESS-TWICE': [
    moved(OTHER, { address: ip('172.22.40.80') }),
    {
      ...moved(OTHER, { address: ip('172.22.40.80'), subnetId: 'twin' }),
      subnets: [HALL, FEED, { ...HALL, id: 'twin', realmId: 'machine-2', vlan: 99 }],
    },
  ],
  'S-ADDRESS-ON-BOTH': [
    second({ address: ip('172.22.40.81') }),
    second({ address: ip('172.22.41.82') }),
  ],
  'S-ADDRESS-OUTSIDE': [
    moved(DRIVE, { address: ip('10.5.7.9') }),
    moved(DRIVE, { address: ip('172.22.40.99') }),
  ],
  'S-ADDRESS-SLIP': [
    moved(DRIVE, { address: ip('172.22.4.80') }),
    moved(DRIVE, { address: ip('10.5.7.9') }),
  ],
  'S-ADDRESS-NETWORK': [moved(DRIVE, { address: ip('172.22.40.0') }), PLAN],
  'S-ADDRESS-BROADCAST': [
    moved(DRIVE, { address: ip('172.22.40.255') }),
    moved(DRIVE, { address: ip('172.22.40.254') }),
  ],
  'S-ADDRESS-NEVER': [
    moved(DRIVE, { address: ip('127.0.0.1') }),
    moved(DRIVE, { address: ip('172.22.40.90') }),
  ],
  'S-ADDRESS-HELD': [
    moved(DRIVE, { address: ip('172.22.40.180') }),
    moved(DRIVE, { address: ip('172.22.40.179') }),
  ],
  'S-ADDRESS-POOL': [
    withDevices({ ...STATION, way: 'bootp', interfaces: [at('station', '172.22.40.200')] }),
    moved(DRIVE, { address: ip('172.22.40.200') }),
  ],
  'S-ADDRESS-LAPTOPS': [
    moved(DRIVE, { address: ip('172.22.40.245') }),
    moved(DRIVE, { address: ip('172.22.40.244') }),
  ],
  'S-ADDRESS-BAND': [moved(DRIVE, { address: ip('172.22.40.100') }), PLAN],
  'S-ADDRESS-EDGE': [
    {
      ...withDevices(
        device('robot', '172.22.41.0', { kindId: 'tolvey-robot-6', way: 'makers-tool' }),
      ),
      subnets: [{ ...HALL, prefix: net('172.22.40.0/23') }],
    },
    {
      ...withDevices(
        device('robot', '172.22.41.1', { kindId: 'tolvey-robot-6', way: 'makers-tool' }),
      ),
      subnets: [{ ...HALL, prefix: net('172.22.40.0/23') }],
    },
  ],
  'S-ADDRESS-FACTORY': [ownCamera(factoryAt('172.22.40.90')), ownCamera(factoryAt('172.22.40.91'))],
  'S-ADDRESS-PROPOSED': [
    { ...PLAN, kinds: [ownKind('osterhew-controller-k', { proposes: ip('172.22.40.80') })] },
    { ...PLAN, kinds: [ownKind('osterhew-controller-k', { proposes: ip('172.22.40.89') })] },
  ],
  'S-ADDRESS-FREED': [
    {
      ...PLAN,
      freed: [
        {
          ...{ id: 'f', subnetId: 'hall', address: ip('172.22.40.80'), deviceId: 'gone' },
          ...{ whose: 'Old pump', at: 0, revision: 1 },
        },
      ],
    },
    {
      ...PLAN,
      freed: [
        {
          ...{ id: 'f', subnetId: 'hall', address: ip('172.22.40.80'), deviceId: 'drive' },
          ...{ whose: 'itself', at: 0, revision: 1 },
        },
      ],
    },
  ],
  'S-LOAN-KEPT': [
    moved(DRIVE, { loan: { address: ip('172.22.40.185'), until: 1 } }),
    moved(DRIVE, { loan: { address: ip('172.22.40.190'), until: 1 } }),
  ],
  'S-SERVER-DEVICE': [
    withHall({ dhcpServers: [ip('172.22.40.80')] }),
    withHall({ dhcpServers: [ip('172.22.40.83')] }),
  ],
  'S-LOAN-OUTSIDE': [
    moved(DRIVE, { loan: { address: ip('172.22.41.9'), until: 1 } }),
    moved(DRIVE, { loan: { address: ip('172.22.40.209'), until: 1 } }),
  ],
  'S-MASK-GAP': [
    moved(DRIVE, { mask: ip('255.255.0.255') }),
    moved(DRIVE, { mask: ip('255.255.255.0') }),
  ],
  'S-MASK-OTHER': [
    moved(DRIVE, { mask: ip('255.255.0.0') }),
    moved(DRIVE, { mask: ip('255.255.255.0') }),
  ],
  'S-OWN-GATEWAY': [
    moved(DRIVE, { gateway: ip('172.22.41.1') }),
    moved(DRIVE, { gateway: ip('172.22.40.254') }),
  ],
  'S-GATEWAYS-TWO': [second({}), second({ gateway: 'none' })],
  'S-INTERFACES-ONE-SUBNET': [
    second({ subnetId: 'hall', address: ip('172.22.40.82') }),
    second({}),
  ],
  'S-MAC-TWICE': [
    withDevices(
      ...[DRIVE, OTHER].map((one) => ({
        ...one,
        interfaces: one.interfaces.map((each) => ({ ...each, mac: mac('02:00:5e:00:53:11') })),
      })),
    ),
    moved(DRIVE, { mac: mac('02:00:5e:00:53:11') }),
  ],
  'S-MAC-GROUP': [
    moved(DRIVE, { mac: mac('01:00:5e:00:00:01') }),
    moved(DRIVE, { mac: mac('02:00:5e:00:00:01') }),
  ],
  'S-SWITCH-CODE': [gatewayAt('172.22.40.255'), gatewayAt('172.22.40.254')],
  'S-SWITCH-NEVER': [
    withDevices({
      ...STATION,
      kindId: 'strathan-terminal-4',
      interfaces: [at('station', '172.22.40.100')],
    }),
    withDevices({
      ...STATION,
      kindId: 'strathan-terminal-4',
      interfaces: [at('station', '172.22.40.99')],
    }),
  ],
  'S-SWITCH-BASE': [
    { ...PLAN, kinds: [stationIn('192.168.33.0/24')] },
    { ...PLAN, kinds: [stationIn('172.22.40.0/24')] },
  ],
  'S-SWITCH-NAME': [
    named({ kindId: 'strathan-terminal-4', way: 'dhcp-name', dhcpName: 'terminal4-7' }),
    named({ kindId: 'strathan-terminal-4', way: 'dhcp-name', dhcpName: 'terminal4-007' }),
  ],
  'S-KIND-GONE': [ofDrive({ kindId: 'nobody' }), PLAN],
  'S-WAY-MISSING': [ofDrive({ way: 'bootp' }), ofDrive({ way: 'keypad' })],
  'S-WAY-CONTROLLER': [
    named({ kindId: 'eldrup-block-8', way: 'controller' }),
    named({ kindId: 'eldrup-block-8', way: 'controller', controllerId: 'plc' }),
  ],
  'S-HOST-NAME': [ofDrive({ name: 'drum drive' }), ofDrive({ name: 'drum-drive' })],
  'S-HOST-NAME-TWICE': [ofDrive({ name: 'other' }), ofDrive({ name: 'other-2' })],
  'S-STATION-NAME': [
    named({ protocol: 'PROFINET', stationName: 'Pump_1' }),
    named({ protocol: 'PROFINET', stationName: 'pump-1' }),
  ],
  'S-STATION-NAME-TWICE': [
    withDevices({ ...DRIVE, stationName: 'pump-1' }, { ...OTHER, stationName: 'pump-1' }),
    withDevices({ ...DRIVE, stationName: 'pump-1' }, { ...OTHER, stationName: 'pump-2' }),
  ],
  'S-DHCP-NAME': [
    named({ way: 'dhcp-name', dhcpName: 'ø'.repeat(128) }),
    named({ way: 'dhcp-name', dhcpName: 'ø'.repeat(127) }),
  ],
  'S-DHCP-NAME-TWICE': [
    withDevices(
      { ...DRIVE, way: 'dhcp-name', dhcpName: 'pump 7' },
      { ...OTHER, way: 'dhcp-name', dhcpName: 'pump 7' },
    ),
    withDevices(
      { ...DRIVE, way: 'dhcp-name', dhcpName: 'pump 7' },
      { ...OTHER, way: 'dhcp-name', dhcpName: 'Pump 7' },
    ),
  ],
  'S-VARIABLE': [ofDrive({ variable: '1st_pump' }), ofDrive({ variable: 'first_pump' })],
  'S-VARIABLE-TWICE': [
    withDevices(
      { ...DRIVE, variable: 'pump' },
      { ...OTHER, variable: 'pump', controllerId: 'plc' },
    ),
    withDevices({ ...DRIVE, variable: 'pump' }, { ...OTHER, variable: 'pump' }),
  ],
  'S-NAME-NEAR': [
    ofDrive({ name: 'fh2-drive-1', stationName: 'fh2-drive-i' }),
    ofDrive({ name: 'fh2-drive-1', stationName: 'drum-drive' }),
  ],
  'S-TITLE-TWICE': [ofDrive({ title: 'other' }), ofDrive({ title: 'another' })],
  'S-CONTROLLER-GONE': [ofDrive({ controllerId: 'gone' }), PLAN],
  'S-CONTROLLER-SELF': [ofDrive({ controllerId: 'drive' }), PLAN],
  'S-ROLE-NONE': [ofDrive({ controllerId: 'station' }), PLAN],
  'S-REALM-APART': [inOtherRealm(), inOtherRealm('translated')],
  'S-PROTOCOL-KIND': [ofDrive({ protocol: 'PROFINET' }), ofDrive({ protocol: 'Modbus/TCP' })],
  'S-CONNECTIONS-LIMIT': [many(3, { mostConnections: 3 }), many(3, { mostConnections: 4 })],
  'S-PACKETS-LIMIT': [
    many(3, { mostPacketsPerSecond: 599 }),
    many(3, { mostPacketsPerSecond: 600 }),
  ],
  'S-SIZE': [connected({ inSize: 8 }, { inSize: 15 }), connected()],
  'S-SIZE-UNITS': [
    connected({ inSize: 8 }, { inSize: 16 }),
    connected({ inSize: 8 }, { inSize: 4, unitBits: '16', outSize: 8 }),
  ],
  'S-SIZE-HEADER': [
    connected({ inSize: 16 }, { inSize: 18 }),
    connected({ inSize: 16 }, { inSize: 18, headerBytes: 2, outSize: 18 }),
  ],
  'S-VIEWPOINT': [
    connected({ inSize: 8, outSize: 16 }, { inSize: 16, outSize: 8 }),
    connected({ inSize: 8, outSize: 16 }, { inSize: 16, outSize: 8, viewpoint: 'device' }),
  ],
  'S-SIZE-OFFERED': [
    connected({ inSize: 10 }, { inSize: 10 }),
    connected({ inSize: 32 }, { inSize: 32 }),
  ],
  'S-INSTANCE': [connected({ inInstance: 100 }, { inInstance: 110 }), connected()],
  'S-CONFIG-SIZE': [
    connected({ configBytes: 8 }, { configBytes: 10 }),
    connected({ configBytes: 8 }, { configBytes: 8 }),
  ],
  'S-INTERVAL': [connected({ intervalMillis: 10 }, { intervalMillis: 20 }), connected()],
  'S-INTERVAL-SHORT': [
    connected({ intervalMillis: 1 }, { intervalMillis: 1 }),
    connected({ intervalMillis: 2 }, { intervalMillis: 2 }),
  ],
  'S-REVISION': [connected({ revision: '4.02' }, { revision: '4.01' }), connected()],
  'S-REGISTER-AREA': [
    connected(
      { register: 30_101, counting: 'area-digit' },
      { register: 40_101, counting: 'area-digit' },
      'Modbus/TCP',
    ),
    connected({ register: 30_101, counting: 'area-digit' }, { register: 100 }, 'Modbus/TCP'),
  ],
  'S-REGISTER-ONE': [
    connected({ register: 100 }, { register: 101 }, 'Modbus/TCP'),
    connected({ register: 100 }, { register: 40_101, counting: 'area-digit' }, 'Modbus/TCP'),
  ],
  'S-REGISTER': [
    connected({ register: 100 }, { register: 102 }, 'Modbus/TCP'),
    connected({ register: 100 }, { register: 101, counting: 'from-1' }, 'Modbus/TCP'),
  ],
  'S-SLOT-TWICE': [slots([1, '16 inputs'], [1, '16 outputs']), slots([1, '16 inputs'])],
  'S-SLOT-OFFER': [slots([9, 'counter']), slots([3, 'counter'])],
  'S-UNIT-TWICE': [line(7, 7), line(7, 8)],
  'S-UNIT-RANGE': [line(248), line(247)],
  'S-LINE-PORT': [
    ofDrive({
      lines: ['Line 1', 'Line 2'].map((title) => ({
        title,
        settings: '',
        tcpPort: 502,
        units: [],
      })),
    }),
    line(1),
  ],
  'S-REFERENCE-GONE': [reference(undefined, 'gone'), reference(undefined)],
  'S-REFERENCE-OLD': [reference('172.22.40.11'), reference('172.22.40.10')],
  'S-PORT-TWICE': [cable('1'), cable('2')],
  'S-CABLE-GONE': [cable('2', 'gone'), cable('2')],
  'S-ROUTE-VIA': [routed('10.9.9.9'), routed('172.22.41.7')],
  'S-ROUTE-NOBODY': [
    ofDrive({ routes: [{ to: net('10.1.0.0/16'), via: ip('172.22.40.1') }] }),
    routed('172.22.40.7'),
  ],
  'S-TRANSLATION-SIZE': [translated('10.50.1.0/25'), translated('10.50.1.0/24')],
};

test('the plan that is spoiled has no snag itself', () => {
  expect(snagsOf(PLAN).map(snagSentence)).toEqual([]);
  expect(CONTROLLER.id).toBe('plc');
});

const rules = (plan: Plan) => snagsOf(plan).map((one) => one.rule);

test.each(SNAG_RULE_IDS)('%s fires, and its near miss does not', (rule) => {
  const [fires, near] = CASES[rule];
  const found = snagsOf(fires).find((one) => one.rule === rule);
  expect([rule, rules(fires)]).toEqual([rule, expect.arrayContaining([rule])]);
  expect(rules(near)).not.toContain(rule);
  if (!found) return;
  expect(found.severity).toBe(SNAG_RULES[rule]);
  const sentence = snagSentence(found);
  expect(sentence).toMatch(/^[A-Z0-9a-z“].*[.?]$/s);
  expect(sentence).not.toMatch(/undefined|null\b|NaN|\[object/);
});

// A mend is a change of the plan that takes its snag away and brings no new wrong one.
test.each(SNAG_RULE_IDS)('the mend of %s mends it', (rule) => {
  const [fires] = CASES[rule];
  const found = snagsOf(fires).find((one) => one.rule === rule);
  const doc = docOfPlan(fires);
  const mend = found && mendOf(planOf(doc), found, 0);
  if (!mend) return;
  const outcome = applyEdits(doc, mend.edits);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.error));
  const after = snagsOf(planOf(outcome.value.doc));
  expect(after.map((one) => one.rule)).not.toContain(rule);
  const wrong = (list: typeof after) => list.filter((one) => one.severity === 'wrong').length;
  expect(wrong(after)).toBeLessThanOrEqual(wrong(snagsOf(fires)));
});
