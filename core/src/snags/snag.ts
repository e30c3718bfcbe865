import type { ThingType } from '../plan';

/** How bad: the site will not work, it may not, or it could be better. */
export const SEVERITIES = ['wrong', 'doubtful', 'hint'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** Every rule with its severity; docs/RULES.md says each in a sentence, with its source. */
export const SNAG_RULES = {
  'S-SUBNET-OVERLAP': 'wrong',
  'S-SUBNET-NEVER': 'wrong',
  'S-SUBNET-LINK-LOCAL': 'doubtful',
  'S-SUBNET-DOCUMENTATION': 'doubtful',
  'S-SUBNET-SHARED': 'doubtful',
  'S-SUBNET-PUBLIC': 'doubtful',
  'S-SUBNET-HOME': 'doubtful',
  'S-SUBNET-BLOCK': 'doubtful',
  'S-SUBNET-SMALL': 'wrong',
  'S-SUBNET-GROWTH': 'doubtful',
  'S-VLAN-TWICE': 'doubtful',
  'S-REALM-GONE': 'wrong',
  'S-RANGE-OUTSIDE': 'wrong',
  'S-BAND-OVERLAP': 'doubtful',
  'S-BAND-FULL': 'hint',
  'S-GATEWAY-OUTSIDE': 'wrong',
  'S-GATEWAY-DEVICE': 'wrong',
  'S-GATEWAY-MISSING': 'wrong',
  'S-GATEWAY-NOBODY': 'hint',
  'S-FACTORY-WIRE': 'hint',
  'S-BLOCK-NEED': 'wrong',
  'S-SUBNET-GONE': 'wrong',
  'S-ADDRESS-TWICE': 'wrong',
  'S-ADDRESS-ON-BOTH': 'wrong',
  'S-ADDRESS-OUTSIDE': 'wrong',
  'S-ADDRESS-SLIP': 'wrong',
  'S-ADDRESS-NETWORK': 'wrong',
  'S-ADDRESS-BROADCAST': 'wrong',
  'S-ADDRESS-NEVER': 'wrong',
  'S-ADDRESS-HELD': 'wrong',
  'S-ADDRESS-POOL': 'wrong',
  'S-ADDRESS-LAPTOPS': 'doubtful',
  'S-ADDRESS-BAND': 'doubtful',
  'S-ADDRESS-EDGE': 'doubtful',
  'S-ADDRESS-FACTORY': 'doubtful',
  'S-ADDRESS-PROPOSED': 'doubtful',
  'S-ADDRESS-FREED': 'hint',
  'S-LOAN-OUTSIDE': 'wrong',
  'S-LOAN-KEPT': 'wrong',
  'S-SERVER-DEVICE': 'wrong',
  'S-MASK-GAP': 'wrong',
  'S-MASK-OTHER': 'wrong',
  'S-OWN-GATEWAY': 'wrong',
  'S-GATEWAYS-TWO': 'wrong',
  'S-INTERFACES-ONE-SUBNET': 'doubtful',
  'S-MAC-TWICE': 'wrong',
  'S-MAC-GROUP': 'wrong',
  'S-SWITCH-CODE': 'wrong',
  'S-SWITCH-NEVER': 'wrong',
  'S-SWITCH-BASE': 'wrong',
  'S-SWITCH-NAME': 'wrong',
  'S-KIND-GONE': 'wrong',
  'S-WAY-MISSING': 'wrong',
  'S-WAY-CONTROLLER': 'wrong',
  'S-HOST-NAME': 'wrong',
  'S-HOST-NAME-TWICE': 'wrong',
  'S-STATION-NAME': 'wrong',
  'S-STATION-NAME-TWICE': 'wrong',
  'S-DHCP-NAME': 'wrong',
  'S-DHCP-NAME-TWICE': 'wrong',
  'S-VARIABLE': 'wrong',
  'S-VARIABLE-TWICE': 'wrong',
  'S-NAME-NEAR': 'doubtful',
  'S-TITLE-TWICE': 'hint',
  'S-CONTROLLER-GONE': 'wrong',
  'S-CONTROLLER-SELF': 'wrong',
  'S-ROLE-NONE': 'wrong',
  'S-REALM-APART': 'wrong',
  'S-PROTOCOL-KIND': 'wrong',
  'S-CONNECTIONS-LIMIT': 'wrong',
  'S-PACKETS-LIMIT': 'wrong',
  'S-SIZE': 'wrong',
  'S-SIZE-UNITS': 'wrong',
  'S-SIZE-HEADER': 'wrong',
  'S-VIEWPOINT': 'wrong',
  'S-SIZE-OFFERED': 'wrong',
  'S-INSTANCE': 'wrong',
  'S-INTERVAL': 'doubtful',
  'S-INTERVAL-SHORT': 'wrong',
  'S-REVISION': 'doubtful',
  'S-REGISTER-AREA': 'wrong',
  'S-REGISTER-ONE': 'wrong',
  'S-REGISTER': 'wrong',
  'S-SLOT-TWICE': 'wrong',
  'S-SLOT-OFFER': 'wrong',
  'S-UNIT-TWICE': 'wrong',
  'S-UNIT-RANGE': 'wrong',
  'S-LINE-PORT': 'wrong',
  'S-REFERENCE-GONE': 'wrong',
  'S-REFERENCE-OLD': 'doubtful',
  'S-PORT-TWICE': 'wrong',
  'S-CABLE-GONE': 'wrong',
  'S-ROUTE-VIA': 'wrong',
  'S-ROUTE-NOBODY': 'wrong',
  'S-TRANSLATION-SIZE': 'wrong',
} as const satisfies Readonly<Record<string, Severity>>;

export type SnagRule = keyof typeof SNAG_RULES;
export const SNAG_RULE_IDS = Object.keys(SNAG_RULES) as readonly SnagRule[];

export type SnagFacts = Readonly<Record<string, string | number>>;

/** Something wrong or doubtful in the plan: which rule, where, and the values a sentence needs. */
export interface Snag {
  readonly rule: SnagRule;
  readonly severity: Severity;
  /** The thing it is at. */
  readonly type: ThingType;
  readonly id: string;
  /** The field of the thing that would be changed. */
  readonly field: string | undefined;
  readonly facts: SnagFacts;
  /** Others it is at too: ids of interfaces or devices. */
  readonly also: readonly string[];
}

export const countWrong = (snags: readonly Snag[]): number =>
  snags.filter((one) => one.severity === 'wrong').length;

/** What an acceptance names: the same rule at the same place, with the same values. */
export const snagKey = (snag: Snag): string =>
  `${snag.rule}@${snag.id}${snag.field === undefined ? '' : `.${snag.field}`}`;

interface Place {
  readonly type: ThingType;
  readonly id: string;
  readonly field?: string;
  readonly also?: readonly string[];
  /** Where one rule weighs differently by its circumstances. */
  readonly severity?: Severity;
}

export const snag = (rule: SnagRule, place: Place, facts: SnagFacts = {}): Snag => ({
  rule,
  severity: place.severity ?? SNAG_RULES[rule],
  type: place.type,
  id: place.id,
  field: place.field,
  facts,
  also: place.also ?? [],
});

/** Nothing speaks against nearly every thing: one list for all of them. */
export const NO_SNAGS: readonly Snag[] = [];

/** Both, without a new list where one of them is empty. */
export const joined = (a: readonly Snag[], b: readonly Snag[]): readonly Snag[] =>
  b.length === 0 ? a : a.length === 0 ? b : [...a, ...b];
