import type { TwinDifference } from '@ipsonomo/core/answering';
import {
  nameSlip,
  type EvidenceKind,
  type EvidenceTold,
  type FactsOf,
  type Role,
  type Stage,
} from '@ipsonomo/core/plan';
import { differencesIn } from '@ipsonomo/core/proof';
import { messages } from '../message';
import { differenceWords } from './proofs';
import { pathWords } from './paths';
import { registerWords } from './registers';
import { watchedWords } from './vigils';

const COUNTED = messages({
  foundBefore:
    '{count, plural, =0 {nothing answers at {at}} one {{found} answers at {at}} other {# devices answer at {at}: {found}}}',
});

/** The words a person reads for the plan's own terms. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  infrastructure: 'infrastructure',
  controllers: 'controllers',
  panels: 'panels',
  gateways: 'gateways',
  drives: 'drives',
  io: 'I/O',
  sensors: 'sensors',
  pool: 'pool',
  held: 'held',
  laptops: 'laptops',
};

export const STAGE_WORDS: Readonly<Record<Stage, string>> = {
  planned: 'planned',
  heard: 'heard',
  given: 'given',
  pinned: 'pinned',
  proven: 'proven',
};

/** Why a device did not keep its address, in words. */
function keepRefused(facts: FactsOf<'keep-refused'>): string {
  switch (facts.why) {
    case 'refused':
      return facts.name
        ? `it refused to be changed: ${facts.name}. Is a controller connected to it?`
        : 'it refused the conversation';
    case 'silent':
      return 'it did not answer the conversation';
    case 'no-right':
      return 'Ipsonomo may not put an address on this adapter (cap_net_admin)';
    case 'other-device':
      return `another device answers for its address: ${facts.found}; nothing was said to it`;
    case 'other-address':
      return `it says it has ${facts.found}; nothing was changed`;
    case 'not-settable':
      return 'its address cannot be set over the wire';
    case 'not-kept':
      return 'it took the change but reads back as before';
    default:
      return `the conversation broke off at "${facts.step}"`;
  }
}

const STATION_WORDS: Readonly<Record<string, string>> = {
  option: 'it does not know such a thing',
  suboption: 'it has no such value',
  'not-set': 'the value was not set',
  resources: 'it has no room for it',
  local: 'it does not allow the value',
  'in-operation': 'its controller runs it. Stop the connection first',
  unsupported: 'it cannot be set over layer 2',
  silent: 'it did not answer, asked three times',
  stopped: 'it was broken off in the middle. Search again and look what is in it',
  'no-voice': 'no free address to ask from: keep a band for service laptops',
};

/** Why a station did not do what it was told, in words. */
export const stationRefusal = (why: string): string =>
  STATION_WORDS[why] ?? 'it refused without a reason that is known';

function setRefused({ what, why, by }: FactsOf<'set-refused'>): string {
  const said = what === 'reset' ? 'it was not set back' : `it did not get its ${what}`;
  return why === 'taken' ? `${said}: ${by} has that ${what}` : `${said}: ${stationRefusal(why)}`;
}

const readWords = ({ address, mac, serial, firmware }: FactsOf<'read-off'>): string =>
  [
    address,
    mac && `MAC ${mac}`,
    serial && `serial number ${serial}`,
    firmware && `firmware ${firmware}`,
  ]
    .filter(Boolean)
    .join(', ') || 'nothing that could be held against the plan';

const NAME_SLIPS: Readonly<Record<string, string>> = {
  capitals: 'only in capital letters',
  swapped: 'in two letters that are swapped',
  lost: 'in one letter that is missing',
  spare: 'in one letter too many',
  digit: 'in one letter',
};

/** A name that is nearly the planned one, in a sentence; undefined where it is the same or quite another. */
export function nameSlipWords(name: string, planned: string): string | undefined {
  const slip = nameSlip(name, planned);
  return slip === undefined
    ? undefined
    : `${name} differs from ${planned} ${NAME_SLIPS[slip]}. Names are compared letter by letter, so its controller would never find it.`;
}

const SLIPS: Readonly<Record<string, string>> = {
  swapped: 'Two neighbouring digits are swapped',
  lost: 'A digit is missing',
  spare: 'There is one digit too many',
  digit: 'One digit is another',
};

function otherwise({ macIs, slip, address, planned }: FactsOf<'read-otherwise'>): string {
  if (macIs !== undefined && macIs !== 'same')
    return macIs === 'near'
      ? 'Its MAC is near the bound one: another port of the same device, or the neighbour'
      : 'Its MAC is not the bound one: it is another device';
  if (slip !== undefined) return `${SLIPS[slip]}: planned is ${planned}`;
  return address === undefined ? `Planned is ${planned}` : `That is not ${planned}, as planned`;
}

/** How its connection stands, where there is something to say. */
const CONNECTION_WORDS: Readonly<Record<string, readonly string[]>> = {
  running: ['its connection runs'],
  idle: ['its connection is idle'],
  faulted: ['a connection to it is faulted'],
  owned: ['a controller has it'],
};

/** What it said instead of the name or the port that the plan goes by. */
function askedOtherwise({ otherName, otherPort }: Omit<FactsOf<'asked'>, 'message'>): string {
  if (otherPort !== undefined)
    return otherPort === '' ? 'through no relay' : `through the port ${otherPort}`;
  return otherName === '' ? 'without a name' : `under the name ${otherName}`;
}

const EVIDENCE: { readonly [K in EvidenceKind]: (facts: FactsOf<K>) => string } = {
  asked: ({ message, ...otherwise }) =>
    otherwise.otherName === undefined && otherwise.otherPort === undefined
      ? `heard asking (${message})`
      : `heard asking (${message}), but ${askedOtherwise(otherwise)}; not answered`,
  'asked-by-name': ({ name }) => `heard asking under the name ${name}`,
  'asked-by-port': ({ port }) => `heard asking through its switch port ${port}`,
  seen: ({ using }) => (using ? `seen on the wire with ${using}` : 'seen on the wire'),
  discovered: ({ name }) =>
    name ? `found over layer 2 as ${name}` : 'found over layer 2, without a name',
  bound: ({ label, reason }) => {
    if (label === undefined) return reason === undefined ? 'bound' : `bound: ${reason}`;
    const although = reason === undefined ? '' : `, although it reads otherwise: ${reason}`;
    return `bound: label ${label} held against the MAC${although}`;
  },
  answered: ({ gave, reply, lentUntil }) =>
    lentUntil === undefined
      ? `answered with ${gave} (${reply})`
      : `answered with ${gave}, which is lent to it (${reply})`,
  'has-address': ({ lent }) =>
    lent === undefined ? 'uses the planned address' : `uses ${lent}, which is lent to it`,
  'told-to-keep': ({ by, gave }) =>
    by === 'layer2'
      ? `took ${gave} over layer 2, to stay`
      : 'told to keep its address, and reads back so',
  'keep-refused': keepRefused,
  named: ({ name }) => `found over layer 2 under its name ${name}`,
  'given-for-now': ({ gave }) => `took ${gave} over layer 2, until the next power-off`,
  'set-refused': setRefused,
  reset: ({ reason }) => `set back to how it left its maker (${reason})`,
  'said-kept': () => 'said to be kept by its own step, not seen yet',
  gone: () => 'gone after its power was cut',
  'arrived-elsewhere': ({ found, expected, by }) => {
    const isLast = found.split('.')[3] === expected.split('.')[3];
    return `${by} came up with ${found} instead of ${expected}. ${
      isLast
        ? 'The last number is right: it has the network from before. Set its network first'
        : 'Read its switches once more; they count only after power off and on'
    }`;
  },
  'found-before': ({ at, found, count }) => COUNTED.foundBefore({ at, count, found: found ?? '' }),
  'left-old': ({ was }) => `answers no longer at ${was}`,
  'still-at-old': ({ was }) => `still answers at ${was} as well`,
  'read-off': (facts) => `read off its ${facts.from}: ${readWords(facts)}`,
  'read-otherwise': (facts) =>
    `read off its ${facts.from}: ${readWords(facts)}. ${otherwise(facts)}`,
  'register-read': (facts) => registerWords(facts),
  'path-asked': (facts) => pathWords(facts),
  'watched-over': (facts) => `watched: ${watchedWords(facts)}`,
  'came-back': (facts) => `cold start: ${returnWords(facts)}`,
  walked: ({ path, ended }) => `walked to it by ${path}: ${ENDED[ended] ?? ended}`,
  'said-one-device': ({ reason }) => `said to be one device alone, not seen: ${reason}`,
  'said-set-back': ({ reason }) => `said to be set back, not seen: ${reason}`,
  'said-written': ({ whose, value, is }) =>
    is === 'yes'
      ? `said to be written as it should in ${whose}: ${value}`
      : `said not to be written in ${whose} after all: ${value}`,
  'said-note': ({ text, photo }) =>
    text === ''
      ? 'noted: a photo'
      : `noted: ${text}${photo === undefined ? '' : ' (with a photo)'}`,
  'said-given': () => 'said to have its address; said, not seen',
  overruled: ({ act, reason }) =>
    `${act === 'power' ? 'its power was cut' : 'it was told to keep its address'} although a controller uses it: ${reason}`,
  'found-values': ({ name, has }) =>
    `in it before: ${[name && `the name ${name}`, has && `the address ${has}`].filter(Boolean).join(', ')}`,
  identified: ({ name, revision, serial, used, planned }) =>
    `says it is ${name}, revision ${revision}, serial number ${serial}; ${
      used === 'yes' ? 'a controller uses it' : 'no controller uses it'
    }${
      planned === undefined
        ? ''
        : `. Its kind stands for revision ${planned}: look for its own description file and sizes`
    }`,
  'page-opened': ({ at }) => `its page was opened at ${at}`,
  'back-too-soon': ({ awaySeconds, needsSeconds }) =>
    `back after ${awaySeconds} s, but it needs ${needsSeconds} s to start: its power was not cut`,
  kept: ({ backAfterSeconds }) =>
    backAfterSeconds === undefined
      ? 'came up with its address by itself'
      : `back with its own address after ${backAfterSeconds} s`,
  'asks-again': () => 'asked for an address again: the one it had is gone',
  'found-as-planned': ({ pingMillis, connection }) =>
    [
      'found as planned',
      ...(pingMillis === undefined ? [] : [`ping ${pingMillis} ms`]),
      ...(CONNECTION_WORDS[String(connection)] ?? []),
    ].join(', '),
  contradicted: (facts) =>
    differencesIn(facts).map(differenceWords).join('; ') || 'found otherwise than planned',
  'no-answer': () => 'nothing answers at its address',
  'address-taken': ({ by }) => `its address is in use by ${by}`,
  declined: () => 'it refused the address: something else has it',
  released: () => 'it gave the address back',
  twins: ({ differs, under, name, one, other }) =>
    under === undefined
      ? `two devices have this MAC (they differ in: ${twinWords(differs ?? '')}); neither is answered`
      : `two devices ask under ${under === 'name' ? `the name ${name}` : 'one switch port'}: ${one} and ${other}; neither is answered`,
};

/** How a device came back from a cold start. */
export function returnWords({
  how,
  seconds,
  has,
  by,
}: Readonly<Record<string, string | number | undefined>>): string {
  const after = seconds === undefined ? '' : ` after ${seconds} s`;
  switch (how) {
    case 'kept':
      return `back${after} with its address, by itself`;
    case 'given':
      return `back${after}, given its address by ${by}`;
    case 'leans':
      return `back${after} only because ${by} gave it its address: it does not keep it`;
    case 'asks':
      return `asks for an address${after}, and nobody gives it one: it was not told to keep it`;
    case 'elsewhere':
      return `back${after} with ${has} instead of its address`;
    case 'starting':
      return `spoke${after}, and did not say where it is`;
    default:
      return 'not heard';
  }
}

/** How a walk to a device ended. */
const ENDED: Readonly<Record<string, string>> = {
  reply: 'it answers',
  silent: 'then nobody answers',
  loop: 'it goes in a circle',
  'net-unreachable': 'the last one knows no way',
  'host-unreachable': 'the last one finds nobody there',
  unreachable: 'the last one lets nothing through',
  'no-voice': 'there was no address to speak from',
};

/** One thing that was seen, as a short clause without its time. */
export function evidenceWords(told: EvidenceTold): string {
  if (told.kind === 'unknown')
    return `seen, and kept as "${told.was}": this version does not know it`;
  const words = EVIDENCE[told.kind] as (facts: EvidenceTold['facts']) => string;
  return words(told.facts);
}

/** What tells two clients apart, in words. */
export const TWIN_WORDS: Readonly<Record<TwinDifference, string>> = {
  hostName: 'host name',
  clientId: 'client identifier',
  vendorClass: 'vendor class',
  parameters: 'wished options',
  port: 'switch port',
  transaction: 'transaction',
};

const twinWords = (differs: string): string =>
  differs
    .split(', ')
    .map((name) => TWIN_WORDS[name as TwinDifference] ?? name)
    .join(', ');

/** `practice` and `live:eth0` as a person says them. */
export const sourceWords = (source: string): string =>
  SOURCES[source] ?? source.slice('live:'.length);

const SOURCES: Readonly<Record<string, string>> = {
  practice: 'practice site',
  rehearsal: 'rehearsal',
  desk: 'at the desk',
};
