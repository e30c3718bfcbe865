import type { Ipv4, MacAddress } from '../net';

/** Values that belong to something, by their names. */
export type Facts = Readonly<Record<string, string | number>>;

// What can have been seen or decided. Every kind carries facts of its own; the table is the one place that names them:
// types, and the reader of what is kept, come from it.

/** How a fact is kept; one with a question mark may be missing, a value is a text or a number. */
type Form = 'text' | 'text?' | 'number' | 'number?' | 'value?';
type Forms = Readonly<Record<string, Form>>;

const forms = <const F extends Readonly<Record<string, Forms>>>(table: F): F => table;

/** What a check tells of a device beside whether it is there. */
export const FOUND_VALUES = [
  ...(['name', 'product', 'revision', 'hardware', 'serial', 'mask', 'gateway', 'page'] as const),
  ...(['services', 'connection', 'modules', 'in', 'out'] as const),
  ...(['in-instance', 'out-instance', 'config-instance'] as const),
] as const;
export type FoundValue = (typeof FOUND_VALUES)[number];

const FOUND = Object.fromEntries(FOUND_VALUES.map((name) => [name, 'value?'])) as Readonly<
  Record<FoundValue, 'value?'>
>;

/** What a check found; besides `expected …` and `found …` for each difference. */
const CHECK = {
  ...FOUND,
  /** The address that was asked. */
  asked: 'text?',
  /** MACs that answered there. */
  found: 'text?',
  expected: 'text?',
  /** The run it belongs to. */
  proof: 'text?',
  passed: 'text?',
  what: 'text?',
  differs: 'text?',
  pingMillis: 'number?',
  /** By which way it said who it is. */
  says: 'text?',
} as const;

/** When a person did it, of what their browser kept until it had a network; milliseconds since 1970. */
const LATER = { doneAt: 'number?' } as const;

const READ_OFF = {
  ...LATER,
  /** `display` or `page`. */
  from: 'text',
  planned: 'text?',
  address: 'text?',
  mac: 'text?',
  serial: 'text?',
  firmware: 'text?',
  macIs: 'text?',
  slip: 'text?',
} as const;

const EVIDENCE_FACTS = forms({
  /** A BootP or DHCP request of the MAC was heard; by another name or port than is planned, where one is told (empty: none). */
  asked: { message: 'text', otherName: 'text?', otherPort: 'text?' },
  /** A request with the planned name (option 12 or 61) was heard. */
  'asked-by-name': { message: 'text?', name: 'text' },
  /** A request through the planned switch port (option 82) was heard. */
  'asked-by-port': { message: 'text?', port: 'text' },
  /** Any frame of the MAC was seen. */
  seen: { using: 'text?' },
  /** It answered layer-2 discovery. */
  discovered: { name: 'text' },
  /** A person held label against MAC and bound it. */
  bound: { label: 'text?', reason: 'text?', ...LATER },
  /** A reply with the planned address was sent; or with one that is lent until then. */
  answered: { reply: 'text', gave: 'text', lentUntil: 'number?' },
  /** The MAC used the planned address, or the one that is lent to it: an ARP answer or announcement. */
  'has-address': { lent: 'text?', using: 'text?' },
  /** The device was told to keep its address and read back as such; `layer2`, or by its own object. */
  'told-to-keep': {
    ...({ by: 'text?', gave: 'text?' } as const),
    ...({ before: 'number?', after: 'number?', capability: 'number?' } as const),
  },
  /** The device refused to keep its address. */
  'keep-refused': {
    ...({ why: 'text', name: 'text?', found: 'text?', step: 'text?', status: 'number?' } as const),
    ...({ capability: 'number?', control: 'number?' } as const),
  },
  /** It has its planned name over layer 2. */
  named: { name: 'text' },
  /** It took an address over layer 2 that lasts to the next power-off. */
  'given-for-now': { gave: 'text', by: 'text?' },
  /** It did not take what it was told over layer 2, or somebody else has it. */
  'set-refused': { what: 'text', why: 'text', by: 'text?' },
  /** Set back to how it left its maker. */
  reset: { reason: 'text' },
  /** A person says the kind's own step was done: said, not seen. */
  'said-kept': LATER,
  /** It stopped answering after its power was cut. */
  gone: {},
  /** Who answered where it was before, or nobody. */
  'found-before': { at: 'text', count: 'number', found: 'text?' },
  /** It answers no longer where it was before. */
  'left-old': { was: 'text?' },
  /** It answers at its new address and still at the old one. */
  'still-at-old': { was: 'text?' },
  /** A person read the planned address off its display or its page: weaker than seen on the wire. */
  'read-off': READ_OFF,
  /** A person read something else off it than is planned. */
  'read-otherwise': READ_OFF,
  /** A person says it was given: said, not seen. */
  'said-given': LATER,
  /** What a person notes of it; a picture by the SHA-256 of its bytes. */
  'said-note': { text: 'text', photo: 'text?', ...LATER },
  /** A person says it was set back or released by who owned it: said, not seen. */
  'said-set-back': { reason: 'text', ...LATER },
  /** One device alone has its MAC, although two were heard. */
  'said-one-device': { reason: 'text', ...LATER },
  /** A person says that a place where it is written has what it should, or that it has not after all. */
  'said-written': { place: 'text', value: 'text', whose: 'text', is: 'text', ...LATER },
  /** A person went on although a controller uses it. */
  overruled: { act: 'text', reason: 'text' },
  /** What was in it before it was changed. */
  'found-values': { name: 'text?', has: 'text?' },
  /** It told who it is, and whether a controller uses it; `planned` where its kind stands for another revision. */
  identified: {
    ...({ name: 'text', revision: 'text', serial: 'text', status: 'text?' } as const),
    ...({ used: 'text', planned: 'text?' } as const),
  },
  /** A person opened its web page. */
  'page-opened': { at: 'text' },
  /** While it was awaited, something came up with another address. */
  'arrived-elsewhere': { found: 'text', expected: 'text', by: 'text' },
  /** It was away for less time than it needs to start: its power was not cut. */
  'back-too-soon': { awaySeconds: 'number', needsSeconds: 'number' },
  /** After power off and on it was at the planned address, not given by Ipsonomo. */
  kept: { backAfterSeconds: 'number?', using: 'text?' },
  /** After power off and on it asked for an address again. */
  'asks-again': {},
  /** It answered ARP and ping from the planned address with the planned MAC. */
  'found-as-planned': CHECK,
  /** Something else was found than planned. */
  contradicted: CHECK,
  /** The way to it, router by router; `-` for one that said nothing. */
  walked: { ended: 'text', path: 'text', subnet: 'text', from: 'text?' },
  /** Who is at the end of a route path was asked along it. */
  'path-asked': {
    ...({ how: 'text', via: 'text', from: 'text', why: 'text?', what: 'text?' } as const),
    ...({ product: 'text?', revision: 'text?', serial: 'text?' } as const),
    ...({ expected: 'text?', found: 'text?', status: 'number?', extended: 'number?' } as const),
  },
  /** One register of it, or of one behind it, was read. */
  'register-read': {
    ...({ unit: 'number', area: 'text', written: 'text' } as const),
    ...({ value: 'number?', exception: 'number?', why: 'text?' } as const),
  },
  /** It was asked in a steady beat over minutes or hours. */
  'watched-over': {
    ...({
      asked: 'number',
      lost: 'number',
      outages: 'number?',
      longestSeconds: 'number?',
    } as const),
    ...({ meanMillis: 'number?', slowestMillis: 'number?', periodSeconds: 'number?' } as const),
  },
  /** How it came back from a cold start that was only watched. */
  'came-back': { how: 'text', seconds: 'number?', has: 'text?', by: 'text?' },
  /** Nothing answered at the planned address. */
  'no-answer': { ...CHECK, why: 'text?' },
  /** Another MAC answers for the planned address. */
  'address-taken': { by: 'text' },
  /** The client refused the address as in use (RFC 2131 §3.1). */
  declined: {},
  /** The client gave the address back. */
  released: {},
  /** Two devices have this MAC, or ask under one name or port; neither is answered. */
  twins: { differs: 'text?', under: 'text?', name: 'text?', one: 'text?', other: 'text?' },
});

type Table = typeof EVIDENCE_FACTS;

/** What this program can have seen or decided. */
export type EvidenceKind = keyof Table;

export const EVIDENCE_KINDS = Object.keys(EVIDENCE_FACTS) as readonly EvidenceKind[];

type FactOf<F extends Form> = F extends 'text' | 'text?'
  ? string
  : F extends 'value?'
    ? string | number
    : number;
type Needed<F extends Forms> = {
  readonly [K in keyof F as F[K] extends 'text' | 'number' ? K : never]: FactOf<F[K]>;
};
type Free<F extends Forms> = {
  readonly [K in keyof F as F[K] extends 'text' | 'number' ? never : K]?: FactOf<F[K]>;
};

/** Of each difference that a check told. */
type Differing = Readonly<Record<`${'expected' | 'found'} ${string}`, string>>;
export const CHECK_KINDS = ['found-as-planned', 'contradicted', 'no-answer'] as const;
export type CheckKind = (typeof CHECK_KINDS)[number];

/** The facts of a kind. */
export type FactsOf<K extends EvidenceKind> = Needed<Table[K]> &
  Free<Table[K]> &
  (K extends CheckKind ? Differing : unknown);

/** What comes in by itself, whoever listens: nobody saw it with their own eyes. */
const BY_ITSELF: readonly EvidenceKind[] = [
  ...(['asked', 'asked-by-name', 'asked-by-port', 'seen', 'discovered', 'answered'] as const),
  ...(['has-address', 'asks-again', 'address-taken', 'declined', 'released', 'twins'] as const),
];

export const comesByItself = (kind: string): boolean => BY_ITSELF.some((one) => one === kind);

/** What was seen, with its facts; `unknown` where a newer program, or a hand, wrote what this one does not read. */
export type EvidenceTold =
  | { readonly [K in EvidenceKind]: { readonly kind: K; readonly facts: FactsOf<K> } }[EvidenceKind]
  | UnknownEvidence;

interface UnknownEvidence {
  readonly kind: 'unknown';
  /** As it is kept. */
  readonly was: string;
  readonly facts: Facts;
}

/** What was seen, of some kinds. */
export type ToldAs<K extends EvidenceKind> = Extract<EvidenceTold, { readonly kind: K }>;

/** What a check found. */
export type CheckFacts = FactsOf<CheckKind>;

/** One thing that was seen or decided; never changed and never removed. */
export type Evidence = EvidenceTold & EvidenceHead;

interface EvidenceHead {
  readonly id: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly mac: MacAddress | undefined;
  readonly address: Ipv4 | undefined;
  /** The wire: `practice` or `live:eth0`. */
  readonly source: string;
  readonly person: string;
}

const isKind = (kind: string): kind is EvidenceKind => Object.hasOwn(EVIDENCE_FACTS, kind);

/** Whether facts are those of a kind: all that are needed are there, and each that is known has its form. */
const fits = (table: Forms, facts: Facts): boolean =>
  Object.entries(table).every(([name, form]) => {
    const value = facts[name];
    if (value === undefined) return form.endsWith('?');
    return form === 'value?' || typeof value === (form.startsWith('text') ? 'string' : 'number');
  });

/** Reads what is kept: as this program writes it, or as one of the programs before it did. */
export function readEvidence(kind: string, facts: Facts): EvidenceTold {
  const now = isKind(kind) ? fromFirst(kind, facts) : facts;
  return isKind(kind) && fits(EVIDENCE_FACTS[kind], now)
    ? ({ kind, facts: now } as EvidenceTold)
    : { kind: 'unknown', was: kind, facts };
}

/** Until 29 November 2026 some facts were words of a sentence. */
function fromFirst(kind: EvidenceKind, facts: Facts): Facts {
  if (kind === 'asked' && facts['says'] !== undefined) {
    const { says, ...rest } = facts;
    return { ...rest, ...saidOtherwise(String(says)) };
  }
  if (kind === 'twins' && facts['key'] !== undefined) {
    const { key, ...rest } = facts;
    const name = /^the name (.*)$/s.exec(String(key))?.[1];
    return { ...rest, ...(name === undefined ? { under: 'port' } : { under: 'name', name }) };
  }
  if (facts['by'] === 'layer 2') return { ...facts, by: 'layer2' };
  return facts;
}

function saidOtherwise(says: string): Facts {
  const port = /^through the port (.*)$/s.exec(says)?.[1];
  const name = /^under the name (.*)$/s.exec(says)?.[1];
  if (port !== undefined || says === 'through no relay') return { otherPort: port ?? '' };
  return { otherName: name ?? '' };
}

/** Whether it is of one of these kinds. */
export const isOneOf = <K extends EvidenceKind, T extends EvidenceTold>(
  kinds: readonly K[],
  told: T,
): told is T & ToldAs<K> => (kinds as readonly string[]).includes(told.kind);

/** A fact by its name, for who shows whatever there is. */
export const factOf = ({ facts }: EvidenceTold, name: string): string | number | undefined =>
  (facts as Facts)[name];
