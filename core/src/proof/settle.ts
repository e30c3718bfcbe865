import { parseMac, type MacAddress } from '../net';
import {
  changeOf,
  docOf,
  endWithBytes,
  findDoc,
  findKind,
  interfacesOf,
  kindsOf,
  measureEnd,
  type Device,
  type Edit,
  type Interface,
  type Json,
  type Kind,
  type Plan,
  type PlanDoc,
} from '../plan';
import { readSizesText } from './assemblies';
import { identityText, stationText } from './compare-found';
import type { FoundDifference } from './differences';
import { readModulesText } from './modules';
import { foundKey } from './outcome';

/** What a difference between planned and found can honestly come to. */
export type Settlement =
  /** The plan was wrong: it takes what was found. */
  | { readonly kind: 'plan-was-wrong'; readonly edits: readonly Edit[] }
  /** The two hang in each other's places: the plan exchanges them. */
  | { readonly kind: 'swapped'; readonly withTitle: string; readonly edits: readonly Edit[] }
  /** It is to be made as planned, on its call. */
  | { readonly kind: 'device-is-wrong' }
  /** The planned one was replaced. */
  | { readonly kind: 'another-device' }
  /** Planned and found stay as they are, with a reason. */
  | { readonly kind: 'both-stay' };

export type SettlementKind = Settlement['kind'];

interface Place {
  readonly plan: Plan;
  readonly doc: PlanDoc;
  readonly device: Device;
  readonly at: Interface;
}

/**
 * The outcomes a person may choose from, the likeliest first; nothing changes until one is chosen. Two devices at one
 * address can only be put right on site.
 */
export function settlementsOf(place: Place, difference: FoundDifference): readonly Settlement[] {
  const toDevice: Settlement = { kind: 'device-is-wrong' };
  const stays: Settlement = { kind: 'both-stay' };
  const another: Settlement = { kind: 'another-device' };
  const planned = planEdits(place, difference);
  const wrongPlan: readonly Settlement[] = planned
    ? [{ kind: 'plan-was-wrong', edits: planned }]
    : [];
  switch (difference.what) {
    case 'several':
    case 'unbound':
      return [toDevice];
    case 'mac':
      return [...exchange(place, difference), another, toDevice, stays];
    case 'kind':
    case 'article':
    case 'serial':
      return [another, ...wrongPlan, toDevice, stays];
    case 'mask':
    case 'gateway':
    case 'module':
    case 'size':
    case 'revision':
    case 'name':
      return [...wrongPlan, toDevice, ...(difference.what === 'revision' ? [another] : []), stays];
    case 'instance':
    case 'service':
    case 'identity':
    case 'no-ping':
      return [toDevice, ...wrongPlan, stays];
  }
}

/** What the plan would have to say to be right; undefined where it cannot say it. */
function planEdits(
  { plan, doc, device, at }: Place,
  { what, found }: FoundDifference,
): readonly Edit[] | undefined {
  const kind = findKind(plan, device.kindId);
  const ofDevice = (fields: Parameters<typeof changeOf>[2]) => {
    const thing = findDoc(doc, 'device', device.id);
    return thing ? changeOf('device', thing, fields) : undefined;
  };
  switch (what) {
    case 'mask':
    case 'gateway': {
      const thing = findDoc(doc, 'interface', at.id);
      return thing && changeOf('interface', thing, { [what]: found });
    }
    case 'serial':
      return ofDevice({ serial: found });
    case 'module':
      return ofDevice({ modules: modulesAsFound(device, found) });
    case 'size': {
      const connection = connectionAsFound(device, found);
      return connection === undefined ? undefined : ofDevice({ connection });
    }
    case 'name':
      return found === '' ? undefined : ofDevice({ stationName: found });
    case 'kind': {
      const other = kindSaying(plan, found);
      return other && ofDevice({ kindId: other.id });
    }
    case 'revision':
      return kind && ofOtherKind(doc, device, { ...kind, revision: found });
    case 'article':
      return kind && ofOtherKind(doc, device, { ...kind, orderNumber: found });
    default:
      return undefined;
  }
}

/** Its modules with those that were found in other slots than planned. */
function modulesAsFound({ modules }: Device, found: string): Json {
  const other = readModulesText(found);
  const kept = modules.filter(({ slot }) => !other.some((one) => one.slot === slot));
  return [...kept, ...other.filter(({ title }) => title !== '')]
    .sort((a, b) => a.slot - b.slot)
    .map(({ slot, title }) => ({ slot, title }));
}

/** Its own end of the connection with the sizes that were found. */
function connectionAsFound(device: Device, found: string): Json | undefined {
  const { connection } = device;
  if (!connection) return undefined;
  const sizes = readSizesText(found);
  const { inBytes = 0, outBytes = 0 } = measureEnd(connection.device);
  const end = { inBytes: sizes.in ?? inBytes, outBytes: sizes.out ?? outBytes };
  const next = { ...connection, device: endWithBytes(connection.device, end) };
  return docOf('device', { ...device, connection: next })['connection'];
}

const kindSaying = (plan: Plan, said: string): Kind | undefined =>
  said === ''
    ? undefined
    : kindsOf(plan).find((one) =>
        [identityText(one.identity), stationText(one.station)].includes(said),
      );

/** The device as of this kind: one that the plan has already, or a new one of the plan's own. */
export function ofOtherKind(doc: PlanDoc, device: Device, kind: Kind): readonly Edit[] | undefined {
  const thing = findDoc(doc, 'device', device.id);
  if (!thing) return undefined;
  const id = `${kind.id}-${kind.revision || kind.orderNumber}`
    .replace(/[^\w.:-]+/g, '-')
    .slice(0, 80);
  const own = docOf('kind', { ...kind, id });
  return [
    ...(doc.kind.has(id) ? [] : [{ op: 'add', type: 'kind', thing: own } as const]),
    ...changeOf('device', thing, { kindId: id }),
  ];
}

/** Another planned interface has the MAC that was found here: then the two exchange theirs. */
function exchange({ plan, doc, at }: Place, { found }: FoundDifference): readonly Settlement[] {
  const mac = parseMac(found);
  const other = mac.ok ? ownerOf(plan, mac.value) : undefined;
  if (!other || other.at.id === at.id || at.mac === undefined) return [];
  const [mine, theirs] = [findDoc(doc, 'interface', at.id), findDoc(doc, 'interface', other.at.id)];
  if (!mine || !theirs) return [];
  const edits = [
    ...changeOf('interface', mine, { mac: theirs['mac'] ?? null }),
    ...changeOf('interface', theirs, { mac: mine['mac'] ?? null }),
  ];
  return [{ kind: 'swapped', withTitle: other.device.title, edits }];
}

const ownerOf = (plan: Plan, mac: MacAddress) =>
  interfacesOf(plan).find(({ at }) => at.mac === mac);

/** A difference that stays, with the person's reason. */
export const stayEdit = (
  id: string,
  interfaceId: string,
  difference: FoundDifference,
  { reason, person }: { readonly reason: string; readonly person: string },
): Edit => ({
  ...{ op: 'add', type: 'acceptance' },
  thing: docOf('acceptance', { id, key: foundKey(interfaceId, difference), reason, person }),
});
