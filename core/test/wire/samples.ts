import { must, parseIpv4, parseMac, toMac, toPrefixLength } from '../../src/net';
import {
  arp,
  answerToSet,
  arpFrame,
  blocksOfStation,
  cipReply,
  cipRequest,
  dhcpFrame,
  CONNECTION_MANAGER,
  dropMessage,
  portPath,
  UNCONNECTED_SEND,
  unconnectedSend,
  type UnconnectedSend,
  discovery,
  discoveryFrame,
  DISCOVERY_GROUP,
  dhcpMessage,
  dhcpMessageOf,
  dword,
  encapsulation,
  encodeWith,
  ethernet,
  icmp,
  identifyAll,
  identityAnswer,
  identityObject,
  modbusMessage,
  modbusReply,
  modbusRequest,
  MODBUS_PORT,
  type ModbusReply,
  identification,
  identifyName,
  interfaceConfiguration,
  ipFrame,
  ipv4Packet,
  ipv4PacketOf,
  lldp,
  OPTION,
  orderOf,
  OWN_PCAP,
  packetItems,
  pcapHeader,
  pcapRecord,
  PROTOCOL,
  rawOption,
  realModules,
  RECORD,
  RECORD_PORT,
  recordAnswer,
  recordQuestion,
  tcp,
  tcpipPath,
  udp,
  udpPacket,
  unconnected,
  type Codec,
  type DiscoveryMessage,
  type Identity,
  type Station,
} from '../../src/wire';
import {
  IDENTIFICATION,
  OLD_MODULES,
  REAL_MODULES,
  RECORD_ASKED,
  RECORD_TOLD,
} from './record-samples';

export const ip = (text: string) => must(parseIpv4(text));
export const mac = (text: string) => must(parseMac(text));

export const DEVICE = mac('02:00:5e:00:53:11');
export const LAPTOP = mac('02:00:5e:00:53:f0');
export const DEVICE_IP = ip('172.22.40.104');
export const LAPTOP_IP = ip('172.22.40.250');

const text = (value: string) => Uint8Array.from(value, (letter) => letter.charCodeAt(0));
const IDENTITY: Identity = {
  ...{ address: DEVICE_IP, vendor: 65_201, type: 12, product: 16, revision: [2, 7] },
  ...{ status: 0x0061, serial: 0x7a405162, name: 'Valve block 16', state: 3 },
};
const { address: _address, state: _state, ...IDENTITY_OBJECT_SAID } = IDENTITY;
const REGISTERS = { kind: 'registers', area: 'holding', start: 107, count: 3 } as const;
const IDENTIFIED: ModbusReply = {
  ...{ kind: 'identification', code: 1, level: 1, next: undefined },
  objects: [
    { id: 0, text: 'Eldrup' },
    { id: 1, text: 'EB-8' },
    { id: 2, text: '1.4' },
  ],
};
const echo = { kind: 'echo-request', identifier: 7, sequence: 9, data: text('ipsonomo') } as const;
const segment = {
  fromPort: 50000,
  toPort: 44818,
  sequence: 4000000000,
  acknowledgment: 5,
  flags: 0x18,
  window: 4096,
  options: Uint8Array.of(2, 4, 5, 0xb4),
  payload: text('odd'),
};

export const LONG_OPTION = { code: 43, data: new Uint8Array(300).map((_, i) => i) };

export const discover = dhcpMessageOf({
  operation: 'request',
  transaction: 0xa212aa4c,
  clientMac: DEVICE,
  seconds: 4,
  flags: 0x8000,
  options: [
    rawOption(OPTION.messageType, 1),
    rawOption(OPTION.parameterList, Uint8Array.of(1, 3, 6, 12)),
    rawOption(OPTION.hostName, 'ox1-valves-1'),
    rawOption(OPTION.clientId, Uint8Array.of(1, 2, 3)),
    { code: 224, data: new Uint8Array(0) },
    rawOption(OPTION.relayInformation, Uint8Array.of(1, 2, 0, 5)),
  ],
});

export const STATION: Station = {
  mac: DEVICE,
  name: 'sl1-block-1',
  type: 'Field block 8',
  vendor: 1022,
  device: 8,
  address: {
    ...{ address: DEVICE_IP, mask: ip('255.255.255.0'), gateway: ip('172.22.40.1') },
    state: 'set',
  },
};

const bytes = (...values: readonly number[]) => Uint8Array.from(values);

/** Port 5 of a switch in VLAN 40, as IEEE 802.1AB has it. */
export const NEIGHBOUR = [
  { type: 1, data: bytes(4, 0x02, 0, 0x5e, 0, 0x53, 0x01) },
  { type: 2, data: bytes(5, ...text('port5')) },
  { type: 3, data: bytes(0, 120) },
  { type: 4, data: text('to cabinet FH2') },
  { type: 5, data: text('hall-switch') },
  { type: 8, data: bytes(5, 1, 172, 22, 40, 2, 2, 0, 0, 0, 1, 0) },
  { type: 127, data: bytes(0x00, 0x80, 0xc2, 1, 0, 40) },
];

/** A group address, which no device has as its own. */
const mac01 = (address: string) => toMac(parseInt(address.replaceAll(':', ''), 16));

const named = orderOf(7, { kind: 'name', name: 'sl1-block-1', stay: 'stored' });
const addressed = orderOf(8, {
  ...{ kind: 'address', address: DEVICE_IP, length: toPrefixLength(24) },
  ...{ gateway: undefined, stay: 'temporary' },
});
const identified: DiscoveryMessage = {
  ...{ act: 'identify', type: 'success', transaction: 9, delay: 0 },
  blocks: blocksOfStation(STATION),
};
const got: DiscoveryMessage = {
  ...{ act: 'get', type: 'request', transaction: 9, delay: 0 },
  blocks: [{ option: 2, suboption: 2, word: undefined, data: new Uint8Array(0) }],
};

/** Who are you, asked through slot 5 of a backplane and a network behind it. */
export const ROUTED: UnconnectedSend = {
  request: { service: 0x01, path: { classId: 1, instance: 1 }, data: new Uint8Array(0) },
  route: [
    { port: 1, link: 5 },
    { port: 2, link: '172.22.40.186' },
    { port: 18, link: 3 },
  ],
};

/** Every codec with values that reach its branches. `never` erases the type for one shared loop. */
export const samples: readonly (readonly [string, Codec<never>, unknown])[] = (
  [
    ['ethernet', ethernet, { to: LAPTOP, from: DEVICE, etherType: 0x88b5, payload: text('abc') }],
    [
      'ethernet with a tag',
      ethernet,
      {
        to: LAPTOP,
        from: DEVICE,
        tag: { priority: 6, dropEligible: true, vlan: 40 },
        etherType: 0x88b5,
        payload: text('abc'),
      },
    ],
    [
      'arp',
      arp,
      {
        operation: 'reply',
        senderMac: DEVICE,
        senderAddress: DEVICE_IP,
        targetMac: LAPTOP,
        targetAddress: LAPTOP_IP,
      },
    ],
    [
      'ipv4',
      ipv4Packet,
      ipv4PacketOf({
        from: DEVICE_IP,
        to: LAPTOP_IP,
        protocol: 99,
        identification: 65535,
        dontFragment: true,
        options: Uint8Array.of(1, 1, 1, 0),
        payload: text('payload'),
      }),
    ],
    ['icmp echo', icmp, echo],
    ['icmp other', icmp, { kind: 'other', type: 3, code: 1, data: text('0000abcd') }],
    ['discovery: who is there', discovery, identifyAll(9, 64)],
    ['discovery: who has a name', discovery, identifyName(9, 'sl1-block-1')],
    ['discovery: a station', discovery, identified],
    ['discovery: a name', discovery, named],
    ['discovery: an address', discovery, addressed],
    ['discovery: a get', discovery, got],
    ['discovery: a refusal', discovery, answerToSet(named, [6])],
    ['lldp', lldp, NEIGHBOUR],
    ['udp', udp(DEVICE_IP, LAPTOP_IP), { fromPort: 68, toPort: 67, payload: text('odd') }],
    ['tcp', tcp(DEVICE_IP, LAPTOP_IP), segment],
    ['dhcp', dhcpMessage, discover],
    ['bootp without options', dhcpMessage, { ...discover, options: [] }],
    [
      'bootp without cookie',
      dhcpMessage,
      { ...discover, options: undefined, vendor: new Uint8Array(64) },
    ],
    ['dhcp with a split option', dhcpMessage, { ...discover, options: [LONG_OPTION] }],
    [
      'encapsulation',
      encapsulation,
      { command: 0x6f, session: 7, status: 0, context: text('ipsonomo'), data: text('data') },
    ],
    [
      'packet items',
      packetItems,
      [
        { type: 0xb2, data: text('abc') },
        { type: 0, data: text('') },
      ],
    ],
    ['unconnected data', unconnected, { timeout: 5, message: text('message') }],
    ['cip request', cipRequest, { service: 0x10, path: tcpipPath(3), data: text('abcd') }],
    [
      'cip request with a wide path',
      cipRequest,
      { service: 0x0e, path: { classId: 0x300, instance: 1 }, data: text('') },
    ],
    ['a route path', portPath, ROUTED.route],
    ['unconnected send', unconnectedSend, ROUTED],
    ['cip reply', cipReply, { service: 0x0e, status: 5, additional: [0x0102], data: text('x') }],
    ['dword', dword, 0xfffffff0],
    ['identity', identityAnswer, IDENTITY],
    ['identity object', identityObject, IDENTITY_OBJECT_SAID],
    ['a record asked for', recordQuestion, RECORD_ASKED],
    ['a record', recordAnswer, RECORD_TOLD],
    ['modules of a station', realModules, REAL_MODULES],
    ['identification of a station', identification, IDENTIFICATION],
    ['modbus message', modbusMessage, { transaction: 9, unit: 3, pdu: text('\x03abcd') }],
    ['modbus: registers asked for', modbusRequest, REGISTERS],
    ['modbus: who it is', modbusRequest, { kind: 'identification', code: 1, object: 2 }],
    ['modbus: registers', modbusReply, { kind: 'registers', area: 'input', values: [1, 65_535] }],
    ['modbus: an exception', modbusReply, { kind: 'exception', function: 3, code: 11 }],
    ['modbus: identification', modbusReply, IDENTIFIED],
    ['modbus: more to come', modbusReply, { ...IDENTIFIED, next: 2, objects: [] }],
    [
      'interface configuration',
      interfaceConfiguration,
      {
        address: DEVICE_IP,
        mask: ip('255.255.255.0'),
        gateway: ip('172.22.40.1'),
        nameServer: ip('0.0.0.0'),
        nameServer2: ip('0.0.0.0'),
        domainName: 'odd',
      },
    ],
    ['pcap header', pcapHeader, OWN_PCAP],
    [
      'pcap record',
      pcapRecord(OWN_PCAP),
      { at: 1732420000123456, frame: text('frame'), wireLength: 60 },
    ],
  ] as const
).map(([name, codec, value]) => [name, codec as unknown as Codec<never>, value]);

const cip = (attribute: number, service: number, data: Uint8Array) =>
  encodeWith(encapsulation, {
    command: 0x6f,
    session: 0x1234,
    status: 0,
    context: text('ipsonomo'),
    data: encodeWith(unconnected, {
      timeout: 5,
      message: encodeWith(cipRequest, { service, path: tcpipPath(attribute), data }),
    }),
  });

const routed = encodeWith(encapsulation, {
  ...{ command: 0x6f, session: 0x1234, status: 0, context: text('ipsonomo') },
  data: encodeWith(unconnected, {
    timeout: 5,
    message: encodeWith(cipRequest, {
      ...{ service: UNCONNECTED_SEND, path: CONNECTION_MANAGER },
      data: encodeWith(unconnectedSend, ROUTED),
    }),
  }),
});

/** To a device of another network. */
export const PINGED = ipv4PacketOf({
  ...{ from: LAPTOP_IP, to: ip('172.22.41.80'), protocol: PROTOCOL.icmp, timeToLive: 1 },
  payload: encodeWith(icmp, echo),
});

const modbus = <T>(codec: Codec<T>, value: T): Uint8Array =>
  encodeWith(modbusMessage, { transaction: 9, unit: 3, pdu: encodeWith(codec, value) });

const recordTold = (index: number, data: Uint8Array): Uint8Array =>
  encodeWith(recordAnswer, { ...RECORD_TOLD, index, data });

/** A call of the laptop to a station, or its answer. */
const overUdp = (sender: 'laptop' | 'device', payload: Uint8Array): Uint8Array =>
  sender === 'laptop'
    ? ipFrame(
        ...([LAPTOP, DEVICE] as const),
        udpPacket(
          { from: LAPTOP_IP, to: DEVICE_IP, fromPort: 50_100, toPort: RECORD_PORT },
          payload,
        ),
      )
    : ipFrame(
        ...([DEVICE, LAPTOP] as const),
        udpPacket(
          { from: DEVICE_IP, to: LAPTOP_IP, fromPort: RECORD_PORT, toPort: 50_100 },
          payload,
        ),
      );

/** A segment between the laptop and the device, whose service has this port. */
function overTcp(sender: 'laptop' | 'device', port: number, payload: Uint8Array): Uint8Array {
  const isOut = sender === 'laptop';
  const from = isOut ? LAPTOP_IP : DEVICE_IP;
  const to = isOut ? DEVICE_IP : LAPTOP_IP;
  const ports = isOut ? { toPort: port } : { fromPort: port, toPort: segment.fromPort };
  const carried = { ...segment, ...ports, options: new Uint8Array(0), payload };
  return ipFrame(
    ...(isOut ? ([LAPTOP, DEVICE] as const) : ([DEVICE, LAPTOP] as const)),
    ipv4PacketOf({
      ...{ from, to, protocol: PROTOCOL.tcp },
      payload: encodeWith(tcp(from, to), carried),
    }),
  );
}

/** Whole frames for an independent dissector. */
export const frames: Readonly<Record<string, Uint8Array>> = {
  arp: arpFrame(DEVICE, LAPTOP, {
    operation: 'reply',
    senderMac: DEVICE,
    senderAddress: DEVICE_IP,
    targetMac: LAPTOP,
    targetAddress: LAPTOP_IP,
  }),
  lldp: encodeWith(ethernet, {
    ...{ to: mac01('01:80:c2:00:00:0e'), from: DEVICE, etherType: 0x88cc },
    payload: encodeWith(lldp, NEIGHBOUR),
  }),
  identify: discoveryFrame(LAPTOP, DISCOVERY_GROUP, identifyAll(9, 64)),
  station: discoveryFrame(DEVICE, LAPTOP, identified),
  named: discoveryFrame(LAPTOP, DEVICE, named),
  addressed: discoveryFrame(LAPTOP, DEVICE, addressed),
  flashed: discoveryFrame(LAPTOP, DEVICE, orderOf(10, { kind: 'flash' })),
  reset: discoveryFrame(LAPTOP, DEVICE, orderOf(11, { kind: 'factory' })),
  refusal: discoveryFrame(DEVICE, LAPTOP, answerToSet(named, [6])),
  ping: ipFrame(
    LAPTOP,
    DEVICE,
    ipv4PacketOf({
      from: LAPTOP_IP,
      to: DEVICE_IP,
      protocol: PROTOCOL.icmp,
      payload: encodeWith(icmp, echo),
    }),
  ),
  // A router gave the ping up; it quotes the head of it.
  exceeded: ipFrame(
    DEVICE,
    LAPTOP,
    ipv4PacketOf({
      ...{ from: ip('172.22.40.1'), to: LAPTOP_IP, protocol: PROTOCOL.icmp },
      payload: encodeWith(icmp, dropMessage('exceeded', PINGED)),
    }),
  ),
  discover: dhcpFrame(
    DEVICE,
    { from: ip('0.0.0.0'), fromPort: 68, to: ip('255.255.255.255'), toPort: 67 },
    {
      ...discover,
      options: [...(discover.options ?? []).filter((o) => o.code !== 224), LONG_OPTION],
    },
  ),
  whoItIs: overTcp(
    'device',
    44_818,
    encodeWith(encapsulation, {
      ...{ command: 0x63, session: 0, status: 0, context: text('ipsonomo') },
      data: encodeWith(identityAnswer, IDENTITY),
    }),
  ),
  routed: overTcp('laptop', 44_818, routed),
  readAttribute: overTcp('laptop', 44_818, cip(3, 0x0e, new Uint8Array(0))),
  recordAsked: overUdp('laptop', encodeWith(recordQuestion, RECORD_ASKED)),
  modulesTold: overUdp('device', recordTold(RECORD.modules, encodeWith(realModules, REAL_MODULES))),
  oldModulesTold: overUdp('device', recordTold(RECORD.modules, OLD_MODULES)),
  identificationTold: overUdp(
    'device',
    recordTold(RECORD.identification, encodeWith(identification, IDENTIFICATION)),
  ),
  registers: overTcp('laptop', MODBUS_PORT, modbus(modbusRequest, REGISTERS)),
  exception: overTcp(
    'device',
    MODBUS_PORT,
    modbus(modbusReply, { kind: 'exception', function: 3, code: 11 }),
  ),
  identified: overTcp('device', MODBUS_PORT, modbus(modbusReply, IDENTIFIED)),
};
