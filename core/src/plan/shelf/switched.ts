import type { Kind } from '../kind';
import {
  asks,
  at,
  dial,
  dip,
  ENIP,
  faceOf,
  guide,
  HTTP,
  ip,
  means,
  MODBUS,
  ownStep,
  offer,
  role,
  STAYS,
  TOLD,
  toKind,
} from './build';

const last = { kind: 'last-number' } as const;
const stored = { kind: 'stored' } as const;
const bootp = { kind: 'asks', by: 'bootp' } as const;
const dhcp = { kind: 'asks', by: 'dhcp' } as const;
const factory = { kind: 'factory' } as const;

const TURN = ['Power off', 'Set the switches as drawn', 'Power on: they are read only then'];

/** Devices with switches: decimal and hex dials, thumbwheels, DIP rows, mode dials, built names. */
export const SWITCHED_KINDS: readonly Kind[] = [
  toKind({
    ...{ id: 'wendle-station-20', maker: 'Wendle', name: 'Block I/O station 20' },
    ...{ role: 'io', stem: 'station', revision: '5.0', bootSeconds: 3 },
    ways: [guide('switches', TURN), guide('bootp', [], ['Dials to 000'])],
    factory: { kind: 'switches' },
    // 000 asks by BootP, 999 by DHCP, 888 goes back to how it left its maker.
    switches: faceOf(
      [dial('×100', 100), dial('×10', 10), dial('×1', 1)],
      means(0, 0, bootp),
      means(1, 254, last),
      means(888, 888, factory),
      means(900, 900, { kind: 'locked' }),
      means(901, 901, stored),
      means(999, 999, dhcp),
    ),
    wins: ['switches', 'stored', 'dhcp'],
    pinning: TOLD,
    services: [ENIP, HTTP],
    identity: { vendor: 65_204, type: 12, product: 20 },
    roles: [role('EtherNet/IP', 'serves')],
    modules: [
      offer('16 inputs', [0, 15], [2, 0]),
      offer('16 outputs', [0, 15], [0, 2]),
      offer('counter', [0, 3], [12, 4]),
    ],
    offeredSizes: [4, 8, 16, 32, 64, 128],
    ...{ mostConnections: 5, leastIntervalMillis: 2, mostPacketsPerSecond: 5000 },
  }),
  toKind({
    ...{ id: 'hartsop-drive-h', maker: 'Hartsop', name: 'Conveyor drive H' },
    ...{ role: 'drives', stem: 'drive', revision: '1.4', bootSeconds: 5 },
    ways: [guide('switches', TURN), guide('dhcp-mac', [], ['Dials to FF'])],
    factory: { kind: 'switches' },
    switches: faceOf(
      [dial('S1', 16, 16), dial('S2', 1, 16)],
      means(0, 0, stored),
      means(1, 254, last),
      means(255, 255, dhcp),
    ),
    wins: ['switches', 'stored', 'dhcp'],
    pinning: STAYS,
    services: [ENIP],
    identity: { vendor: 65_205, type: 2, product: 81 },
    roles: [role('EtherNet/IP', 'serves'), role('PROFINET', 'serves')],
    offeredSizes: [4, 12, 24],
    ...{ mostConnections: 3, leastIntervalMillis: 4 },
  }),
  toKind({
    ...{ id: 'corrigall-gateway-2', maker: 'Corrigall', name: 'Serial gateway, 2 lines' },
    ...{ role: 'gateways', stem: 'gateway', revision: '2.3', bootSeconds: 8 },
    ways: [guide('switches', TURN), guide('web-page', ['Network page, Save, Restart'])],
    factory: at('192.168.33.10'),
    // The first switch is the least: bit order as printed on the housing.
    switches: faceOf(
      [dip('SW1', [1, 2, 4, 8, 16, 32, 64, 128])],
      means(0, 0, stored),
      means(1, 254, last),
      means(255, 255, dhcp),
    ),
    wins: ['switches', 'stored'],
    pinning: ownStep('On its page: Save, then Restart'),
    services: [MODBUS, HTTP],
    roles: [role('Modbus/TCP', 'both')],
    mostConnections: 8,
  }),
  toKind({
    ...{ id: 'strathan-terminal-4', maker: 'Strathan', name: 'Valve terminal 4' },
    ...{ role: 'io', stem: 'terminal', revision: '7.1', vendorClass: 'strathan-4' },
    ways: [guide('dhcp-name', TURN), guide('switches', TURN), guide('layer2-name')],
    factory: asks('dhcp'),
    switches: faceOf(
      [
        dial('MODE', 1, 4, 'mode'),
        dial('×10', 10, 10, 'number', 'thumbwheel'),
        dial('×1', 1, 10, 'number', 'thumbwheel'),
      ],
      means(0, 99, stored, 0),
      means(1, 99, last, 1),
      means(0, 99, { kind: 'name', pattern: 'terminal4-{nnn}' }, 2),
      means(0, 0, factory, 3),
    ),
    wins: ['switches', 'stored', 'dhcp'],
    pinning: STAYS,
    services: [ENIP],
    identity: { vendor: 65_206, type: 27, product: 4 },
    station: { vendor: 1021, device: 4 },
    roles: [role('EtherNet/IP', 'serves'), role('PROFINET', 'serves')],
    offeredSizes: [4, 8],
    ...{ mostConnections: 2, leastIntervalMillis: 2 },
  }),
  toKind({
    ...{ id: 'osterhew-controller-r', maker: 'Osterhew', name: 'Rack controller R' },
    ...{ role: 'controllers', stem: 'controller', revision: '12', bootSeconds: 20 },
    ways: [
      guide('switches', TURN, ['Key switch to STOP']),
      guide(
        'card',
        ['Write the file on the card', 'Put it in, power off and on'],
        ['Key switch to STOP'],
      ),
      guide('makers-tool'),
      guide('bootp', [], ['Switch SRC off']),
    ],
    factory: asks('bootp'),
    // Ten switches, the first the greatest: a host part of nets up to /22. The eleventh chooses.
    switches: faceOf(
      [dip('ADDR', [512, 256, 128, 64, 32, 16, 8, 4, 2, 1]), dip('SRC', [1], 'mode')],
      means(0, 1023, stored, 0),
      means(1, 1022, { kind: 'host-part' }, 1),
      means(1023, 1023, { kind: 'fixed', address: ip('192.168.60.1') }, 1),
    ),
    wins: ['switches', 'controller', 'stored'],
    pinning: STAYS,
    services: [ENIP, MODBUS],
    identity: { vendor: 65_207, type: 14, product: 200 },
    roles: [
      role('EtherNet/IP', 'opens'),
      role('PROFINET', 'opens'),
      role('Modbus/TCP', 'both'),
      role('OPC UA', 'serves'),
    ],
    modules: [
      offer('network module', [1, 12], [0, 0]),
      offer('32 inputs', [1, 12], [4, 0]),
      offer('32 outputs', [1, 12], [0, 4]),
    ],
    ...{ mostConnections: 128, mostPacketsPerSecond: 10_000, mostDevices: 64 },
    longestVariable: 40,
    card: {
      ...{ file: 'network.cfg', where: 'In the uppermost folder of the card', lineEnd: 'crlf' },
      content: 'host = {name}\naddress = {address}\nmask = {mask}\nrouter = {gateway}\n',
    },
    hasIndependentHosts: true,
    proposes: ip('192.168.60.1'),
  }),
];
