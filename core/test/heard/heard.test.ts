import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { HeardBook, subnetsHeard, takeFound, type HeardStation } from '../../src/heard';
import { formatIpv4, formatMac, formatPrefix, must, parseIpv4, parseMac } from '../../src/net';
import {
  applyEdits,
  toPlan,
  planOf,
  toDevice,
  toInterface,
  toSubnet,
  type Edit,
  type Plan,
  type PlanDoc,
  docOfPlan,
} from '../../src/plan';
import { openSnags, snagsOf, mendOf } from '../../src/snags';
import {
  arpFrame,
  blocksOfStation,
  discoveryFrame,
  framesOfCapture,
  ipFrame,
  ipv4PacketOf,
  OPTION,
  rawOption,
  dhcpFrame,
  dhcpMessageOf,
  messageTypeCode,
  type MessageType,
} from '../../src/wire';
import { withTshark } from '../wire/with-tshark';
import { net } from '../snags/world';

const ip = (text: string) => must(parseIpv4(text));
const mac = (text: string) => must(parseMac(text));
const DRIVE = mac('02:00:5e:00:53:11');
const STATION = mac('02:00:5e:00:53:12');
const ROUTER = mac('02:00:5e:00:53:01');
const ALL = mac('ff:ff:ff:ff:ff:ff');
const NOBODY = ip('0.0.0.0');

const NOTHING = toPlan({});

/** The plan once these edits are made. */
function changed(doc: PlanDoc, edits: readonly Edit[]): PlanDoc {
  const outcome = applyEdits(doc, edits);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.error));
  return outcome.value.doc;
}

const heard = (...frames: readonly Uint8Array[]): HeardBook => {
  const book = new HeardBook();
  frames.forEach((frame, at) => book.take({ frame, at, wireLength: frame.length }));
  return book;
};

const arps = (from: number, own: string, target = '10.9.0.1') =>
  arpFrame(from as never, ALL, {
    ...{ operation: 'request', senderMac: from as never, senderAddress: ip(own) },
    ...{ targetMac: 0 as never, targetAddress: ip(target) },
  });

const packet = (from: number, own: string, timeToLive: number) =>
  ipFrame(from as never, ROUTER, {
    ...ipv4PacketOf({
      ...{ from: ip(own), to: ip('10.9.0.7'), protocol: 89, payload: new Uint8Array(8) },
    }),
    timeToLive,
  });

const answers = (type: MessageType, given: string) =>
  dhcpFrame(
    ROUTER,
    { from: ip('10.9.0.1'), fromPort: 67, to: ip('255.255.255.255'), toPort: 68 },
    dhcpMessageOf({
      ...{ operation: 'reply', clientMac: DRIVE, yourAddress: ip(given), transaction: 7 },
      options: [
        rawOption(OPTION.messageType, messageTypeCode(type)),
        rawOption(OPTION.subnetMask, ip('255.255.252.0')),
        rawOption(OPTION.routers, [ip('10.9.0.1')]),
        rawOption(OPTION.hostName, 'vb-drive-1'),
      ],
    }),
  );

const identifies = discoveryFrame(STATION, ROUTER, {
  ...{ act: 'identify', type: 'success', transaction: 1, delay: 0 },
  blocks: blocksOfStation({
    ...{ mac: STATION, name: 'vb-station', type: 'Station 20', vendor: 0x0a11, device: 3 },
    address: {
      ...{ address: ip('10.9.1.20'), mask: ip('255.255.252.0'), gateway: NOBODY, state: 'set' },
    },
  }),
});

const addressesOf = (book: HeardBook) =>
  book
    .stations()
    .flatMap(({ mac: own, addresses }) =>
      own === undefined ? [] : [[formatMac(own), addresses.map(formatIpv4)]],
    );

test.each<[string, readonly Uint8Array[], readonly string[]]>([
  ['asks for another', [arps(DRIVE, '10.9.0.7')], ['10.9.0.7']],
  ['probes an address before it has it', [arps(DRIVE, '0.0.0.0')], []],
  ['chose one for itself', [arps(DRIVE, '169.254.7.7')], []],
  ['sends with a fresh lifetime', [packet(DRIVE, '10.9.0.7', 64)], ['10.9.0.7']],
  ['sends what came through a router', [packet(DRIVE, '10.8.0.7', 63)], []],
  ['is offered one', [answers('OFFER', '10.9.0.7')], []],
  ['is given one', [answers('ACK', '10.9.0.7')], ['10.9.0.7']],
  [
    'has two, each once',
    [arps(DRIVE, '10.9.0.7'), arps(DRIVE, '10.8.0.7'), arps(DRIVE, '10.9.0.7')],
    ['10.9.0.7', '10.8.0.7'],
  ],
])('R-HEARD-PLAN: who %s', (_name, frames, addresses) => {
  const book = heard(...frames);
  const one = book.stations().find((station) => station.mac === DRIVE);
  expect((one?.addresses ?? []).map(formatIpv4)).toEqual(addresses);
});

test('names, identity, masks and who gives addresses', () => {
  const book = heard(answers('ACK', '10.9.0.7'), identifies);
  const [router, drive, station] = book.stations();
  expect([router?.servesDhcp, router?.addresses.map(formatIpv4)]).toEqual([true, ['10.9.0.1']]);
  expect(drive).toMatchObject({ mac: DRIVE, hostName: 'vb-drive-1' });
  // A frame is its sender's, once; what a server says of another is not that one's.
  expect([router?.frames, drive?.frames, station?.frames]).toEqual([1, 0, 1]);
  expect(station).toMatchObject({
    ...{ stationName: 'vb-station' },
    identity: { by: 'PROFINET', vendor: 0x0a11, product: 3, name: 'Station 20' },
  });
  expect(
    subnetsHeard(book.stations()).map(({ prefix, by, gateway, dhcpServers }) => [
      ...[formatPrefix(prefix), by, gateway === undefined ? '' : formatIpv4(gateway)],
      dhcpServers.map(formatIpv4),
    ]),
  ).toEqual([['10.9.0.0/22', 'said', '10.9.0.1', ['10.9.0.1']]]);
});

test('a network that nobody named is a /24, and says that it is guessed', () => {
  const [only] = subnetsHeard(heard(arps(DRIVE, '192.168.7.9')).stations());
  expect([only && formatPrefix(only.prefix), only?.by]).toEqual(['192.168.7.0/24', 'guessed']);
});

test('what cannot be read is counted and stops nothing', () => {
  const book = heard(Uint8Array.of(1, 2, 3), arps(DRIVE, '10.9.0.7').subarray(0, 20), identifies);
  expect([book.frames, book.unread, book.stations().length]).toEqual([3, 2, 1]);
});

const words = {
  found: (source: string) => `heard in ${source}`,
  guessed: (source: string) => `heard in ${source}, its mask is guessed`,
  subnet: (network: string) => `Network ${network}`,
  device: (of: string) => `Device ${of}`,
};

function take(plan: Plan, stations: readonly HeardStation[]) {
  let ids = 0;
  const idOf = (type: string) => `${type}-${(ids += 1)}`;
  const taken = takeFound(plan, stations, { source: 'cell.pcap', now: 0, idOf, words });
  const after = planOf(changed(docOfPlan(plan), taken.edits));
  return { taken, after };
}

test('R-FOUND: a plan from nothing: subnets, devices, names, MACs, each marked', () => {
  const { taken, after } = take(NOTHING, heard(answers('ACK', '10.9.0.7'), identifies).stations());
  expect([taken.subnets, taken.devices, taken.left]).toEqual([1, 2, []]);
  // The router gives addresses and leads out of the network: the subnet says so, and nothing is wrong with that.
  expect(after.subnets[0]).toMatchObject({
    gateway: ip('10.9.0.1'),
    dhcpServers: [ip('10.9.0.1')],
  });
  expect(snagsOf(after).filter(({ severity }) => severity === 'wrong')).toEqual([]);
  expect(
    after.devices.map(({ title, name, way, interfaces: [at] }) => [
      ...[title, name, way, at && formatIpv4(at.address), at?.mac],
    ]),
  ).toEqual([
    ['vb-drive-1', 'vb-drive-1', 'web-page', '10.9.0.7', DRIVE],
    ['vb-station', 'vb-station', 'layer2-name', '10.9.1.20', STATION],
  ]);
  const found = openSnags(after, snagsOf(after)).filter(({ rule }) => rule === 'S-FOUND');
  const marked = ['Network 10.9.0.0/22', ...after.devices.map(({ title }) => title)];
  expect(new Set(found.map(({ facts }) => facts))).toEqual(
    new Set(marked.map((what) => ({ what, how: 'heard in cell.pcap' }))),
  );
  // A person says that it is planned so.
  const doc = docOfPlan(after);
  const mended = found.reduce(
    (now, snag) => changed(now, mendOf(planOf(now), snag, 0)?.edits ?? []),
    doc,
  );
  const left = planOf(mended);
  expect(snagsOf(left).filter(({ rule }) => rule === 'S-FOUND')).toEqual([]);
});

test('what is planned stays as it is; names are given once; who has no address gets one where there is one subnet', () => {
  const plan: Plan = {
    ...NOTHING,
    subnets: [toSubnet({ id: 'hall', name: 'Hall', prefix: net('10.9.0.0/22') })],
    devices: [
      toDevice({
        ...{ id: 'd', title: 'Drive', name: 'vb-drive-1', kindId: 'other-device', way: 'keypad' },
        interfaces: [
          toInterface({ id: 'd-at', deviceId: 'd', subnetId: 'hall', address: ip('10.9.0.1') }),
        ],
      }),
    ],
  };
  const asks = heard(answers('OFFER', '10.9.0.9'))
    .stations()
    .filter(({ servesDhcp }) => !servesDhcp);
  const named = asks.map((one) => ({ ...one, mac: DRIVE, hostName: 'vb-drive-1' }));
  const { taken, after } = take(plan, [
    ...named,
    { ...heard(arps(DRIVE, '10.9.0.2')).stations()[0]!, mac: DRIVE },
  ]);
  expect([taken.subnets, taken.left.length]).toEqual([0, 0]);
  expect(after.devices[0]).toEqual(planOf(docOfPlan(plan)).devices[0]);
  const names = after.devices.map(({ name }) => name);
  expect(new Set(names).size).toBe(names.length);
  const addresses = after.devices.flatMap(({ interfaces }) => interfaces.map((one) => one.address));
  expect(new Set(addresses).size).toBe(addresses.length);
});

test('who has no address belongs where a person says', () => {
  const [only] = heard(arps(DRIVE, '0.0.0.0')).stations();
  const subnets = ['10.9.0.0/24', '10.9.1.0/24'].map((prefix) =>
    toSubnet({ id: prefix, name: prefix, prefix: net(prefix) }),
  );
  const plan = toPlan({ subnets });
  const wish = { source: 'cell.pcap', now: 0, idOf: (type: string) => type, words };
  const taken = (subnetId: string) => takeFound(plan, only ? [only] : [], { ...wish, subnetId });
  expect(taken('10.9.1.0/24').edits[1]).toMatchObject({
    thing: { subnetId: '10.9.1.0/24', address: '10.9.1.1' },
  });
  expect(taken('gone').left).toEqual([only]);
});

test('without a subnet, or between two, who has no address is left and told', () => {
  const [only] = heard(arps(DRIVE, '0.0.0.0')).stations();
  if (!only) throw new Error('nobody was heard');
  expect(take(NOTHING, [only]).taken).toMatchObject({ devices: 0, left: [only] });
});

const DATA = join(__dirname, '../data');

withTshark('as tshark lists the same frames', () => {
  test.each(['udhcpc-with-dnsmasq.pcap', 'bootpc-with-dnsmasq.pcap'])('%s', (name) => {
    const path = join(DATA, name);
    const book = new HeardBook();
    for (const record of framesOfCapture(new Uint8Array(readFileSync(path)))) book.take(record);
    const lines = execFileSync(
      'tshark',
      [
        ...['-r', path, '-Y', 'dhcp.type == 2 && (dhcp.option.dhcp == 5 || !dhcp.option.dhcp)'],
        ...['-T', 'fields', '-e', 'dhcp.hw.mac_addr', '-e', 'dhcp.ip.your'],
      ],
      { encoding: 'utf8' },
    );
    const given = lines
      .trim()
      .split('\n')
      .map((line) => line.split('\t'));
    expect(given.length).toBeGreaterThan(0);
    for (const [client, address] of given)
      expect(addressesOf(book)).toContainEqual([client, [address]]);
  });
});
