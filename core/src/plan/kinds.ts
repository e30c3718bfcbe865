import { must, parseIpv4, type Ipv4 } from '../net';
import type { Role, Way } from './model';

/** What a device does at power-up as it comes from its maker. */
export type FactoryState =
  | { readonly kind: 'asks'; readonly by: 'bootp' | 'dhcp' }
  | { readonly kind: 'fixed'; readonly address: Ipv4 };

/** How a given address is made to stay. */
export type Pinning =
  /** Over EtherNet/IP: bits 0–3 of attribute 3 of the TCP/IP interface object. */
  | { readonly by: 'tcpip-object' }
  /** By a person at the device, in this order. */
  | { readonly by: 'own-step'; readonly steps: readonly string[] };

/** What all devices of one order number share. */
export interface Kind {
  readonly id: string;
  readonly maker: string;
  readonly name: string;
  readonly role: Role;
  /** What a proposed name of such a device is made of. */
  readonly stem: string;
  readonly ways: readonly Way[];
  readonly factory: FactoryState;
  readonly pinning: Pinning;
  readonly answersPing: boolean;
  /** From power on to the first request. */
  readonly bootSeconds: number;
  /** The longest pause between two requests. */
  readonly longestPauseSeconds: number;
  /** Option 60, exactly as such a device sends it. */
  readonly vendorClass?: string;
}

const at = (address: string): FactoryState => ({
  kind: 'fixed',
  address: must(parseIpv4(address)),
});

/** The kinds that ship with Ipsonomo; makers are invented. */
export const KINDS: readonly Kind[] = [
  {
    id: 'tarnwick-valves-16',
    maker: 'Tarnwick',
    name: 'Valve block, 16 coils',
    role: 'io',
    stem: 'valves',
    ways: ['bootp'],
    factory: { kind: 'asks', by: 'bootp' },
    pinning: { by: 'tcpip-object' },
    answersPing: true,
    bootSeconds: 3,
    longestPauseSeconds: 16,
  },
  {
    id: 'belloch-drive-d4',
    maker: 'Belloch',
    name: 'Pump drive D4',
    role: 'drives',
    stem: 'drive',
    ways: ['dhcp-mac', 'keypad'],
    factory: { kind: 'asks', by: 'dhcp' },
    pinning: { by: 'tcpip-object' },
    answersPing: true,
    bootSeconds: 4,
    longestPauseSeconds: 16,
    vendorClass: 'belloch-d4',
  },
  {
    id: 'quillfen-station-8',
    maker: 'Quillfen',
    name: 'Remote I/O station, 8 slots',
    role: 'io',
    stem: 'station',
    ways: ['bootp'],
    factory: { kind: 'asks', by: 'bootp' },
    pinning: {
      by: 'own-step',
      steps: [
        'Hold the key next to the supply plug for five seconds',
        'Let go when the lamp NET stops blinking: the station now keeps its address',
      ],
    },
    answersPing: true,
    bootSeconds: 2,
    longestPauseSeconds: 16,
  },
  {
    id: 'marrowby-flow-f2',
    maker: 'Marrowby',
    name: 'Flow meter F2',
    role: 'sensors',
    stem: 'flow',
    ways: ['dhcp-mac'],
    factory: { kind: 'asks', by: 'dhcp' },
    pinning: {
      by: 'own-step',
      steps: ['In the menu of the meter: Network, Address, Keep', 'Confirm with the right key'],
    },
    answersPing: true,
    bootSeconds: 5,
    longestPauseSeconds: 32,
    vendorClass: 'marrowby-f',
  },
  {
    id: 'dunvarrick-drive-m',
    maker: 'Dunvarrick',
    name: 'Drum drive M',
    role: 'drives',
    stem: 'drive',
    ways: ['bootp'],
    factory: { kind: 'asks', by: 'bootp' },
    pinning: { by: 'tcpip-object' },
    answersPing: true,
    bootSeconds: 3,
    longestPauseSeconds: 16,
  },
  {
    id: 'fennrick-camera-c1',
    maker: 'Fennrick',
    name: 'Inspection camera C1',
    role: 'sensors',
    stem: 'camera',
    ways: ['web-page'],
    factory: at('192.168.77.10'),
    pinning: { by: 'own-step', steps: ['On its web page: Store, then Restart'] },
    answersPing: true,
    bootSeconds: 6,
    longestPauseSeconds: 0,
  },
  {
    id: 'osterhew-controller-k',
    maker: 'Osterhew',
    name: 'Machine controller K',
    role: 'controllers',
    stem: 'controller',
    ways: ['makers-tool', 'keypad'],
    factory: at('192.168.60.1'),
    pinning: { by: 'own-step', steps: ['Store the project in the controller'] },
    answersPing: true,
    bootSeconds: 8,
    longestPauseSeconds: 0,
  },
  {
    id: 'marrowby-weigher-w3',
    maker: 'Marrowby',
    name: 'Weighing head W3',
    role: 'sensors',
    stem: 'weigh',
    ways: ['keypad', 'dhcp-mac'],
    factory: { kind: 'asks', by: 'dhcp' },
    pinning: {
      by: 'own-step',
      steps: ['On the keypad: Setup, Interface, Address, Save', 'Wait for "saved" in the display'],
    },
    answersPing: true,
    bootSeconds: 4,
    longestPauseSeconds: 32,
  },
];

export const findKind = (id: string): Kind | undefined => KINDS.find((kind) => kind.id === id);
