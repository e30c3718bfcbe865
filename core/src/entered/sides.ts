import {
  changeOf,
  docOf,
  endWithBytes,
  findDoc,
  findKind,
  instancesOf,
  isFoundByStationName,
  measureEnd,
  type ConnectionEnd,
  type Device,
  type Edit,
  type Interface,
  type Json,
  type JsonObject,
  type Plan,
  type PlanDoc,
} from '../plan';
import { isOtherRevision, ofOtherKind } from '../proof';
import type { EnteredValue, ThreeWays } from './three-ways';

// Whose value counts, where plan, project and device differ. The plan holds what was decided: another side is
// chosen by changing the plan, and what the others have to take follows from it.

/** Who says a value. */
export type Side = 'planned' | 'entered' | 'found';

interface Place {
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly device: Device;
  readonly at: Interface;
}

/** Two ways of saying the same; of a revision a newer minor one counts as the same. */
const isSame = (value: EnteredValue, one: string, other: string): boolean =>
  value === 'revision' ? !isOtherRevision(one, other) : one === other;

/** What the controller's programmer has to correct in the project. */
export interface Correction {
  readonly value: EnteredValue;
  readonly stands: string;
  readonly becomes: string;
}

/** R-SIDES: what a project says otherwise than the plan, which says what was decided. */
export const correctionsOf = (rows: readonly ThreeWays[]): readonly Correction[] =>
  rows.flatMap(({ value, planned, entered }) =>
    planned === '' || entered === '' || isSame(value, planned, entered)
      ? []
      : [{ value, stands: entered, becomes: planned }],
  );

/** R-SIDES: what the device says otherwise than the plan, and has to take. */
export const deviceTakes = (rows: readonly ThreeWays[]): readonly ThreeWays[] =>
  rows.filter(
    ({ value, planned, found, verdict }) =>
      verdict === 'differs' && planned !== '' && found !== '' && !isSame(value, planned, found),
  );

/** The sides whose word of a value would change the plan. */
export const otherSides = ({ value, planned, entered, found }: ThreeWays): readonly Side[] => {
  const sides = [
    ['entered', entered],
    ['found', found],
  ] as const;
  return sides.flatMap(([side, said], at) =>
    said === '' ||
    isSame(value, planned, said) ||
    sides.slice(0, at).some(([, one]) => one === said)
      ? []
      : [side],
  );
};

/**
 * R-SIDES: the plan with another side's word of a value.
 * @returns undefined where the plan cannot say it
 */
export function sideEdits(
  place: Place,
  { value, ...row }: ThreeWays,
  side: Side,
): readonly Edit[] | undefined {
  const said = row[side];
  if (said === '') return undefined;
  const { doc, device, at } = place;
  const ofDevice = (fields: JsonObject) => {
    const thing = findDoc(doc, 'device', device.id);
    return thing && changeOf('device', thing, fields);
  };
  const ofInterface = (fields: JsonObject) => {
    const thing = findDoc(doc, 'interface', at.id);
    return thing && changeOf('interface', thing, fields);
  };
  switch (value) {
    case 'name':
      return ofDevice(
        isFoundByStationName(device) ? { stationName: said } : { name: said, isNameTyped: true },
      );
    case 'address':
    case 'mask':
    case 'gateway':
      return ofInterface({ [value]: said });
    case 'revision':
      return revisionEdits(place, said);
    case 'in':
    case 'out':
    case 'in-instance':
    case 'out-instance':
    case 'config-instance':
    case 'interval': {
      const end = endSaying(device.connection?.device, value, said);
      return end && ofDevice({ connection: withEnd(device, end) });
    }
    case 'modules':
    case 'connection':
      return undefined;
  }
}

function revisionEdits({ plan, doc, device }: Place, revision: string) {
  const kind = findKind(plan, device.kindId);
  return kind && ofOtherKind(doc, device, { ...kind, revision });
}

function withEnd(device: Device, end: ConnectionEnd): Json {
  const { connection } = device;
  const next = connection && { ...connection, device: end };
  return docOf('device', { ...device, connection: next })['connection'] ?? null;
}

type EndValue = Extract<EnteredValue, 'in' | 'out' | `${string}-instance` | 'interval'>;

/** The device's end with one value, in its own units and from its own viewpoint; "none" is no instance. */
function endSaying(
  end: ConnectionEnd | undefined,
  value: EndValue,
  said: string,
): ConnectionEnd | undefined {
  const number = said === 'none' ? undefined : Number(said);
  if (!end || Number.isNaN(number)) return undefined;
  if (value === 'interval') return { ...end, intervalMillis: number };
  if (value === 'in' || value === 'out') {
    const { inBytes = 0, outBytes = 0 } = measureEnd(end);
    const bytes = { inBytes, outBytes, [value === 'in' ? 'inBytes' : 'outBytes']: number ?? 0 };
    return endWithBytes(end, bytes);
  }
  const seen = { ...instancesOf(end), [INSTANCE[value]]: number };
  const { inInstance, outInstance } = seen;
  return end.viewpoint === 'controller'
    ? { ...end, ...seen }
    : { ...end, ...seen, inInstance: outInstance, outInstance: inInstance };
}

const INSTANCE = {
  ...{ 'in-instance': 'inInstance', 'out-instance': 'outInstance' },
  'config-instance': 'configInstance',
} as const;
