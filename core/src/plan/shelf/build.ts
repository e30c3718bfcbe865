import { must, parseIpv4, type Ipv4 } from '../../net';
import type { SwitchElement, SwitchFace, SwitchMeaning, SwitchUse } from '../../switches';
import type { ConnectionRole, FactoryState, Guide, Kind, ModuleOffer, Pinning } from '../kind';
import type { Way } from '../words';

// Small words to write kinds with; what is not said is the usual.

type Needed = 'id' | 'maker' | 'name' | 'role' | 'stem' | 'ways' | 'factory' | 'pinning';

/** A kind of which only what is special is said. */
export const toKind = (fields: Pick<Kind, Needed> & Partial<Kind>): Kind => ({
  orderNumber: '',
  revision: '',
  switches: undefined,
  wins: [],
  setBack: [],
  needsPowerCycle: true,
  answersPing: true,
  bootSeconds: 4,
  longestPauseSeconds: 16,
  vendorClass: undefined,
  services: [],
  identity: undefined,
  station: undefined,
  stationName: '',
  asksNewPassword: false,
  isLockedWhileConnected: false,
  roles: [],
  ports: [],
  modules: [],
  offers: [],
  offeredSizes: [],
  mostConnections: undefined,
  mostPacketsPerSecond: undefined,
  mostDevices: undefined,
  leastIntervalMillis: undefined,
  hasIndependentHosts: false,
  forwards: false,
  refusesEdgeNumbers: false,
  longestVariable: undefined,
  proposes: undefined,
  card: undefined,
  papers: [],
  note: '',
  ...fields,
});

export const ip = (text: string): Ipv4 => must(parseIpv4(text));
export const at = (address: string): FactoryState => ({ kind: 'fixed', address: ip(address) });
export const asks = (by: 'bootp' | 'dhcp'): FactoryState => ({ kind: 'asks', by });
export const guide = (
  way: Way,
  steps: readonly string[] = [],
  first: readonly string[] = [],
): Guide => ({ way, first, steps });
export const ownStep = (...steps: readonly string[]): Pinning => ({ by: 'own-step', steps });
export const TOLD: Pinning = { by: 'tcpip-object', steps: [] };
export const STAYS: Pinning = { by: 'stays', steps: [] };

export const dial = (
  label: string,
  weight: number,
  positions = 10,
  use: SwitchUse = 'number',
  look: 'rotary' | 'thumbwheel' = 'rotary',
): SwitchElement => ({ kind: 'dial', label, positions, look, weight, use });

export const dip = (
  label: string,
  weights: readonly number[],
  use: SwitchUse = 'number',
): SwitchElement => ({ kind: 'dip', label, weights, use });

/** Values `from` to `to`, in a mode where there are several. */
export const means = (
  from: number,
  to: number,
  act: SwitchMeaning['act'],
  mode?: number,
): SwitchMeaning => ({ mode, from, to, act });

export const faceOf = (
  elements: readonly SwitchElement[],
  ...meanings: readonly SwitchMeaning[]
): SwitchFace => ({ elements, meanings, base: undefined });

export const role = (
  protocol: ConnectionRole['protocol'],
  side: ConnectionRole['side'],
): ConnectionRole => ({ protocol, side });

/** A module with the slots it may sit in, its bytes in and out, and what its description file numbers it by. */
export const offer = (
  title: string,
  [firstSlot, lastSlot]: readonly [number, number],
  [inBytes, outBytes]: readonly [number, number],
  ident?: number,
): ModuleOffer => ({ title, firstSlot, lastSlot, inBytes, outBytes, ident });

export const HTTP = { protocol: 'tcp', port: 80, name: 'web page' } as const;
export const ENIP = { protocol: 'tcp', port: 44_818, name: 'EtherNet/IP' } as const;
export const MODBUS = { protocol: 'tcp', port: 502, name: 'Modbus/TCP' } as const;
export const OPCUA = { protocol: 'tcp', port: 4840, name: 'OPC UA' } as const;
