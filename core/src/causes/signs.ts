import {
  isOneOf,
  nameSlip,
  type EvidenceKind,
  type EvidenceTold,
  type NoticeTold,
  type ToldAs,
  type Way,
} from '../plan';
import type { Ipv4, MacAddress } from '../net';
import { differencesIn, type DifferenceKind } from '../proof';

/** Something that was seen of a device or of its wire and that wants an explanation. */
export const SIGNS = [
  ...(['no-link', 'nothing-heard', 'silent', 'asks-unanswered', 'another-answers'] as const),
  ...(['several-answer', 'no-ping', 'elsewhere', 'still-at-factory', 'fresh-brothers'] as const),
  ...(['other-server', 'voice-taken', 'in-use', 'other-revision', 'other-kind'] as const),
  ...(['other-serial', 'service-closed', 'unreadable', 'other-question'] as const),
  ...(['layer2-silent', 'name-slip', 'name-other', 'name-doubled'] as const),
  ...(['named-without-address', 'asks-again', 'tagged', 'answers-for-all'] as const),
  ...(['twins', 'changes-number', 'not-settable', 'far-fails'] as const),
  ...(['drops-in-beat', 'drops'] as const),
  ...(['other-modules', 'other-sizes', 'connection-faulted', 'other-vlan'] as const),
  // What only a person can see.
  ...(['lamp-off', 'lamp-conflict', 'display-otherwise', 'page-read-only'] as const),
] as const;
export type Sign = (typeof SIGNS)[number];

/** What excludes a cause and wants no explanation itself. */
export type Countersign = 'heard' | 'answers' | 'lamp-on' | 'asks' | 'link';

/** What is known of one planned device and the wire it should be on. Newest first where there is an order. */
export interface Known {
  readonly way: Way;
  readonly mac: MacAddress | undefined;
  readonly address: Ipv4;
  readonly stationName: string;
  readonly factory: Ipv4 | undefined;
  readonly hasLink: boolean;
  /** Anything came in at this socket. */
  readonly hasHeard: boolean;
  /** VLANs whose frames come in with a tag. */
  readonly tags: readonly number[];
  /** VLAN of the laptop's socket as its switch tells it, and of the device's subnet; undefined where nobody says. */
  readonly vlans: { readonly socket: number | undefined; readonly planned: number | undefined };
  readonly notices: readonly (NoticeTold & { readonly at: number })[];
  readonly present: readonly {
    readonly mac: MacAddress;
    readonly address: Ipv4;
    readonly lastAt: number;
  }[];
  readonly clients: readonly {
    readonly mac: MacAddress;
    readonly lastAt: number;
    readonly hasTwin: boolean;
    readonly changesNumber: boolean;
  }[];
  readonly stations: readonly {
    readonly mac: MacAddress;
    readonly name: string | undefined;
    /** As it tells it over layer 2; undefined where it has none. */
    readonly address: Ipv4 | undefined;
    readonly lastAt: number;
  }[];
  readonly evidence: readonly (EvidenceTold & { readonly at: number })[];
  /** The route there or back does not work by the plan. */
  readonly farFails: boolean;
  /** What a person said they see. */
  readonly said: readonly (Sign | Countersign)[];
}

/** Only what was seen from then on (milliseconds since 1970): after a test, what was before it is no sign any more. */
export const knownSince = (known: Known, since: number): Known => ({
  ...known,
  notices: known.notices.filter(({ at }) => at >= since),
  present: known.present.filter(({ lastAt }) => lastAt >= since),
  clients: known.clients.filter(({ lastAt }) => lastAt >= since),
  stations: known.stations.filter(({ lastAt }) => lastAt >= since),
  evidence: known.evidence.filter(({ at }) => at >= since),
});

/** A router that answers for others was seen with so many addresses. */
const MANY = 5;
/** Notices that are about the wire, whichever device one looks at. */
const OF_WIRE: Readonly<Record<string, Sign>> = {
  'other-server': 'other-server',
  'voice-taken': 'voice-taken',
};

/** Everything that wants an explanation, and what excludes some. */
export function signsOf(known: Known): ReadonlySet<Sign | Countersign> {
  const signs = new Set<Sign | Countersign>(known.said);
  const add = (sign: Sign | Countersign, when: boolean) => {
    if (when) signs.add(sign);
  };
  add('no-link', !known.hasLink);
  add('link', known.hasLink);
  add('nothing-heard', known.hasLink && !known.hasHeard);
  add('tagged', known.tags.length > 0);
  const { socket, planned } = known.vlans;
  add('other-vlan', socket !== undefined && planned !== undefined && socket !== planned);
  add('far-fails', known.farFails);
  const ofWire = known.notices.flatMap(({ code }) => OF_WIRE[code] ?? []);
  for (const sign of [...ofWire, ...ofWhere(known), ...ofNames(known), ...ofEvidence(known)])
    signs.add(sign);
  return signs;
}

/** Who was seen where. */
function ofWhere({ mac, address, factory, present, clients, notices }: Known) {
  const signs: (Sign | Countersign)[] = [];
  const at = (where: Ipv4 | undefined) =>
    new Set(present.filter((one) => one.address === where).map((one) => one.mac));
  const ofMac = (who: MacAddress) => present.filter((one) => one.mac === who);
  const routers = [...new Set(present.map((one) => one.mac))].filter(
    (who) => ofMac(who).length >= MANY,
  );
  if (routers.length > 0) signs.push('answers-for-all');
  if (factory !== undefined && at(factory).size > 1) signs.push('fresh-brothers');
  if (mac === undefined) return signs;
  const mine = new Set(ofMac(mac).map((one) => one.address));
  const client = clients.find((one) => one.mac === mac);
  const lastSeen = Math.max(-Infinity, ...ofMac(mac).map((one) => one.lastAt));
  // One that says since then where it is has stopped asking.
  const isAsking = client !== undefined && client.lastAt > lastSeen;
  if (mine.has(address)) signs.push('answers');
  else if (factory !== undefined && mine.has(factory)) signs.push('still-at-factory');
  else if (mine.size > 0) signs.push('elsewhere');
  if (isAsking) signs.push('asks');
  if (isAsking && !mine.has(address)) signs.push('asks-unanswered');
  if (client?.hasTwin) signs.push('twins');
  if (client?.changesNumber) signs.push('changes-number');
  if (mine.size > 0 || client) signs.push('heard');
  const by = (code: 'other-question' | 'unreadable' | 'voice-taken') =>
    notices.some((one) => one.code === code && isMac(one.facts.by, mac));
  if (by('unreadable')) signs.push('unreadable', 'heard');
  if (by('other-question')) signs.push('other-question', 'heard');
  return signs;
}

const isMac = (text: string | number | undefined, mac: MacAddress): boolean =>
  typeof text === 'string' && Number.parseInt(text.replaceAll(':', ''), 16) === mac;

/** What it is called over layer 2. */
function ofNames({ way, mac, stationName, stations, present, address }: Known) {
  const signs: (Sign | Countersign)[] = [];
  if (mac === undefined || (way !== 'layer2-name' && way !== 'controller')) return signs;
  const mine = stations.find((one) => one.mac === mac);
  const others = stations.filter((one) => one.mac !== mac && one.name === stationName);
  if (others.length > 0) signs.push('name-doubled');
  if (!mine) return signs;
  signs.push('heard');
  const { name = '' } = mine;
  const has =
    mine.address === address || present.some((one) => one.mac === mac && one.address === address);
  if (name === stationName) {
    if (!has) signs.push('named-without-address');
  } else if (name !== '') signs.push(nameSlip(name, stationName) ? 'name-slip' : 'name-other');
  return signs;
}

const OF_DIFFERENCE: Readonly<Record<DifferenceKind, Sign | undefined>> = {
  ...({ several: 'several-answer', mac: 'another-answers', unbound: undefined } as const),
  ...({ kind: 'other-kind', article: 'other-kind', revision: 'other-revision' } as const),
  ...({ mask: 'far-fails', gateway: 'far-fails' } as const),
  ...({ serial: 'other-serial', name: 'name-other', service: 'service-closed' } as const),
  ...({ identity: 'unreadable', 'no-ping': 'no-ping' } as const),
  ...({ module: 'other-modules', size: 'other-sizes', instance: 'other-sizes' } as const),
};

/** What was kept of it; of each kind the newest counts. */
function ofEvidence({ evidence }: Known): readonly (Sign | Countersign)[] {
  const newest = <K extends EvidenceKind>(...kinds: readonly K[]): ToldAs<K> | undefined =>
    evidence.find((one) => isOneOf(kinds, one));
  const signs: (Sign | Countersign)[] = [];
  const check = newest('found-as-planned', 'contradicted', 'no-answer');
  if (check?.kind === 'no-answer') signs.push('silent');
  if (check?.kind === 'contradicted')
    for (const { what } of differencesIn(check.facts)) signs.push(OF_DIFFERENCE[what] ?? 'heard');
  if (check?.facts.connection === 'faulted') signs.push('connection-faulted');
  const told = newest('identified');
  if (told?.facts.used === 'yes') signs.push('in-use');
  if (told?.facts.planned !== undefined) signs.push('other-revision');
  if (newest('keep-refused', 'told-to-keep')?.kind === 'keep-refused') signs.push('not-settable');
  const set = newest('set-refused', 'named', 'told-to-keep', 'given-for-now');
  if (set?.kind === 'set-refused') {
    if (set.facts.why === 'silent') signs.push('layer2-silent');
    if (set.facts.why === 'taken' && set.facts.what === 'name') signs.push('name-doubled');
    if (set.facts.why === 'in-operation') signs.push('in-use');
  }
  const watched = newest('watched-over')?.facts;
  if (watched && watched.lost > 0)
    signs.push(watched.periodSeconds === undefined ? 'drops' : 'drops-in-beat');
  if (newest('kept', 'asks-again')?.kind === 'asks-again') signs.push('asks-again');
  if (newest('address-taken', 'has-address')?.kind === 'address-taken')
    signs.push('another-answers');
  if ((newest('found-before')?.facts.count ?? 0) > 1) signs.push('fresh-brothers');
  if (newest('still-at-old', 'left-old')?.kind === 'still-at-old') signs.push('still-at-factory');
  return signs;
}
