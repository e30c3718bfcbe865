import {
  containsAddress,
  lastOf,
  ok,
  refuse,
  roleOf,
  toIpv4,
  type Ipv4,
  type Prefix,
  type Result,
} from '../net';
import { placesOf, type SwitchAct, type SwitchFace, type SwitchUse } from './face';

/** What a row of positions comes to. */
export interface SwitchReading {
  readonly value: number;
  readonly mode: number;
  /** Undefined where the device's kind has no meaning for the value. */
  readonly act: SwitchAct | undefined;
}

/**
 * Reads positions as they are seen on the device, left to right.
 * @example readSwitches(threeDecimalDials, [0, 8, 6]) // value 86
 * @returns refusals `switches.count` and `switches.position`
 */
export function readSwitches(
  face: SwitchFace,
  positions: readonly number[],
): Result<SwitchReading> {
  const places = placesOf(face);
  if (positions.length !== places)
    return refuse('switches.count', positions.join(','), { have: positions.length, need: places });
  const sums: Record<SwitchUse, number> = { number: 0, mode: 0, other: 0 };
  let place = 0;
  for (const element of face.elements) {
    const weights = element.kind === 'dial' ? [element.weight] : element.weights;
    const most = element.kind === 'dial' ? element.positions - 1 : 1;
    for (const weight of weights) {
      const position = positions[place] ?? NaN;
      if (!Number.isInteger(position) || position < 0 || position > most)
        return refuse('switches.position', String(position), {
          place: place + 1,
          label: element.label,
          most,
        });
      sums[element.use] += position * weight;
      place += 1;
    }
  }
  const { number: value, mode } = sums;
  return ok({ value, mode, act: meaningOf(face, value, mode) });
}

const meaningOf = (face: SwitchFace, value: number, mode: number): SwitchAct | undefined =>
  face.meanings.find(
    (one) => (one.mode === undefined || one.mode === mode) && value >= one.from && value <= one.to,
  )?.act;

/**
 * The address a device with this act has in a network, undefined where the switches give none: it
 * asks, keeps what is stored, or the number is no host of the network.
 */
export function addressBySwitches(
  face: SwitchFace,
  { value, act }: SwitchReading,
  network: Prefix,
): Ipv4 | undefined {
  if (act?.kind === 'fixed') return act.address;
  const base = face.base ?? network;
  const address =
    act?.kind === 'last-number' && value <= 255
      ? toIpv4((base.network & 0xffffff00) + value)
      : act?.kind === 'host-part'
        ? hostPart(base, value)
        : undefined;
  return address !== undefined && roleOf(base, address) === 'host' ? address : undefined;
}

const hostPart = (base: Prefix, value: number): Ipv4 | undefined =>
  base.network + value <= lastOf(base) ? toIpv4(base.network + value) : undefined;

/** The name a device with this act goes by. @example nameBySwitches('valves-{nnn}', 7) // valves-007 */
export const nameBySwitches = (pattern: string, value: number): string =>
  pattern.replace(/\{(n+)\}/, (_all, digits: string) => String(value).padStart(digits.length, '0'));

/** Can the network part that the switches work in be that of the address? */
export const isInBase = (face: SwitchFace, network: Prefix, address: Ipv4): boolean =>
  containsAddress(face.base ?? network, address);
