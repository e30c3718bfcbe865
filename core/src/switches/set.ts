import { formatIpv4, formatPrefix, ok, refuse, type Ipv4, type Prefix, type Result } from '../net';
import type { SwitchAct, SwitchElement, SwitchFace, SwitchUse } from './face';
import { addressBySwitches, isInBase, readSwitches, type SwitchReading } from './read';

export interface SwitchSetting extends SwitchReading {
  /** Left to right as they sit on the device. */
  readonly positions: readonly number[];
}

/**
 * How the switches must stand for an address in its network.
 * @example setForAddress(threeDecimalDials, 172.22.40.86, 172.22.40.0/24) // 0 8 6
 * @returns refusals `switches.base` (the switches work in another network) and `switches.never` (no
 * position means this address)
 */
export function setForAddress(
  face: SwitchFace,
  address: Ipv4,
  network: Prefix,
): Result<SwitchSetting> {
  const where = formatIpv4(address);
  if (!isInBase(face, network, address) && !hasFixed(face, address))
    return refuse('switches.base', where, { base: formatPrefix(face.base ?? network) });
  return setWhere(face, where, (reading) => addressBySwitches(face, reading, network) === address);
}

/**
 * The way to a meaning that is no address: ask, stored, factory, a name with this number.
 * @param where what is wanted, for the refusal
 */
export function setForAct(
  face: SwitchFace,
  where: string,
  isMeant: (act: SwitchAct, value: number) => boolean,
): Result<SwitchSetting> {
  return setWhere(face, where, ({ act, value }) => act !== undefined && isMeant(act, value));
}

const hasFixed = (face: SwitchFace, address: Ipv4): boolean =>
  face.meanings.some(({ act }) => act.kind === 'fixed' && act.address === address);

function setWhere(
  face: SwitchFace,
  where: string,
  isWanted: (reading: SwitchReading) => boolean,
): Result<SwitchSetting> {
  for (const { mode, from, to, act } of face.meanings)
    for (const wantedMode of mode === undefined ? modesOf(face) : [mode])
      for (let value = from; value <= to; value += 1) {
        if (!isWanted({ value, mode: wantedMode, act })) continue;
        const setting = settingOf(face, value, wantedMode);
        if (setting && isWanted(setting)) return ok(setting);
      }
  return refuse('switches.never', where);
}

/** The values that the mode switches can make; 0 alone where there are none. */
const modesOf = (face: SwitchFace): readonly number[] => [...new Set(sumsOf(face, 'mode'))];

/** Positions whose number and mode are these; switches of no use to the address stay at 0. */
function settingOf(face: SwitchFace, value: number, mode: number): SwitchSetting | undefined {
  const positions: number[] = [];
  const rest: Record<SwitchUse, number> = { number: value, mode, other: 0 };
  const places = face.elements.flatMap((element, at) =>
    weightsOf(element).map((weight) => ({ element, weight, at, order: 0 })),
  );
  places.forEach((place, index) => (place.order = index));
  // The heaviest first: every face that ships is a positional system, so greedy is exact; where it is
  // not, the reading below does not agree and the setting is refused.
  for (const { element, weight, order } of [...places].sort((a, b) => b.weight - a.weight)) {
    const most = element.kind === 'dial' ? element.positions - 1 : 1;
    const position = weight === 0 ? 0 : Math.min(most, Math.floor(rest[element.use] / weight));
    positions[order] = position;
    rest[element.use] -= position * weight;
  }
  const reading = readSwitches(face, positions);
  if (!reading.ok || reading.value.value !== value || reading.value.mode !== mode) return undefined;
  return { ...reading.value, positions };
}

const weightsOf = (element: SwitchElement): readonly number[] =>
  element.kind === 'dial' ? [element.weight] : element.weights;

function sumsOf(face: SwitchFace, use: SwitchUse): readonly number[] {
  let sums: readonly number[] = [0];
  for (const element of face.elements) {
    if (element.use !== use) continue;
    const most = element.kind === 'dial' ? element.positions - 1 : 1;
    for (const weight of weightsOf(element))
      sums = sums.flatMap((sum) =>
        Array.from({ length: most + 1 }, (_, position) => sum + position * weight),
      );
  }
  return sums;
}

const makeable = new WeakMap<SwitchFace, Map<string, ReadonlySet<Ipv4>>>();

/**
 * The addresses of a network that the switches can make, lowest first. Thousands of devices share a
 * face and a network, so what was found is kept as long as the face is.
 */
export function addressesBySwitches(face: SwitchFace, network: Prefix): ReadonlySet<Ipv4> {
  let ofFace = makeable.get(face);
  if (!ofFace) makeable.set(face, (ofFace = new Map()));
  const key = `${network.network}/${network.length}`;
  let found = ofFace.get(key);
  if (!found) ofFace.set(key, (found = findAddresses(face, network)));
  return found;
}

function findAddresses(face: SwitchFace, network: Prefix): ReadonlySet<Ipv4> {
  const addresses = new Set<Ipv4>();
  for (const reading of readingsOf(face)) {
    const address = addressBySwitches(face, reading, network);
    if (address !== undefined) addresses.add(address);
  }
  return new Set([...addresses].sort((a, b) => a - b));
}

const readings = new WeakMap<SwitchFace, readonly SwitchReading[]>();

/** Every reading that may be an address and that some position gives. */
function readingsOf(face: SwitchFace): readonly SwitchReading[] {
  const known = readings.get(face);
  if (known) return known;
  const found = face.meanings.flatMap(({ mode: only, from, to, act }) => {
    if (!ADDRESS_ACTS.has(act.kind)) return [];
    const mode = only ?? modesOf(face)[0] ?? 0;
    return Array.from({ length: to - from + 1 }, (_, step) => ({ value: from + step, mode, act }));
  });
  const makeable = found.filter(({ value, mode }) => settingOf(face, value, mode));
  readings.set(face, makeable);
  return makeable;
}

const ADDRESS_ACTS: ReadonlySet<SwitchAct['kind']> = new Set(['last-number', 'host-part', 'fixed']);

/** Every row of positions the face can stand in, first position slowest. */
export function* everyPosition(face: SwitchFace): Generator<readonly number[]> {
  const mosts = face.elements.flatMap((element) =>
    weightsOf(element).map(() => (element.kind === 'dial' ? element.positions - 1 : 1)),
  );
  const positions = mosts.map(() => 0);
  for (;;) {
    yield [...positions];
    let place = mosts.length - 1;
    while (place >= 0 && positions[place] === mosts[place]) positions[place--] = 0;
    if (place < 0) return;
    positions[place] = (positions[place] ?? 0) + 1;
  }
}
