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
  'S-FOUND': 'hint',
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
  'S-CONFIG-SIZE': 'wrong',
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

type Of<Names extends string> = Readonly<Record<Names, string | number>>;
/** A name that its rules refuse: the refusal's code, and its facts beside the device. */
type RefusedName = Of<'device' | 'name' | 'code' | 'part'> &
  Readonly<Record<string, string | number>>;

/** What is known of a snag of each rule: the values that its sentence needs. */
export interface SnagFacts {
  readonly 'S-FOUND': Of<'what' | 'how'>;
  readonly 'S-SUBNET-OVERLAP': Of<'subnet' | 'network' | 'other' | 'otherNetwork'>;
  readonly 'S-SUBNET-NEVER': Of<'subnet' | 'network' | 'block'>;
  readonly 'S-SUBNET-LINK-LOCAL': Of<'subnet' | 'network'>;
  readonly 'S-SUBNET-DOCUMENTATION': Of<'subnet' | 'network'>;
  readonly 'S-SUBNET-SHARED': Of<'subnet' | 'network'>;
  readonly 'S-SUBNET-PUBLIC': Of<'subnet' | 'network'>;
  readonly 'S-SUBNET-HOME': Of<'subnet' | 'network'>;
  readonly 'S-SUBNET-BLOCK': Of<'subnet' | 'network' | 'blocks'>;
  readonly 'S-SUBNET-SMALL': Of<'subnet' | 'devices' | 'room'>;
  readonly 'S-SUBNET-GROWTH': Of<'subnet' | 'devices' | 'free'>;
  readonly 'S-VLAN-TWICE': Of<'subnet' | 'vlan' | 'other'>;
  readonly 'S-REALM-GONE': Of<'subnet'>;
  readonly 'S-RANGE-OUTSIDE': Of<'subnet' | 'network' | 'first' | 'last' | 'note'>;
  readonly 'S-BAND-OVERLAP': Of<'subnet' | 'band' | 'other' | 'first'>;
  readonly 'S-BAND-FULL': Of<'subnet' | 'band'>;
  readonly 'S-GATEWAY-OUTSIDE': Of<'subnet' | 'network' | 'gateway' | 'role'>;
  readonly 'S-GATEWAY-DEVICE': Of<'device' | 'address' | 'subnet'>;
  readonly 'S-GATEWAY-MISSING': Of<'device' | 'controller' | 'side'>;
  readonly 'S-GATEWAY-NOBODY': Of<'subnet' | 'gateway'>;
  readonly 'S-FACTORY-WIRE': Of<'subnet' | 'address' | 'count' | 'devices'>;
  readonly 'S-BLOCK-NEED': Of<'block' | 'network' | 'need' | 'where'>;
  readonly 'S-SUBNET-GONE': Of<'device' | 'address'>;
  readonly 'S-ADDRESS-TWICE': Of<'address' | 'devices' | 'count'>;
  readonly 'S-ADDRESS-ON-BOTH': Of<'device' | 'address'>;
  readonly 'S-ADDRESS-OUTSIDE': Of<'device' | 'address' | 'subnet' | 'network'>;
  readonly 'S-ADDRESS-SLIP': Of<'device' | 'address' | 'meant' | 'how' | 'subnet'>;
  readonly 'S-ADDRESS-NETWORK': Of<'device' | 'address' | 'network'>;
  readonly 'S-ADDRESS-BROADCAST': Of<'device' | 'address' | 'network'>;
  readonly 'S-ADDRESS-NEVER': Of<'device' | 'address' | 'block'>;
  readonly 'S-ADDRESS-HELD': Of<'device' | 'address' | 'note'>;
  readonly 'S-ADDRESS-POOL': Of<'device' | 'address' | 'subnet'>;
  readonly 'S-ADDRESS-LAPTOPS': Of<'device' | 'address'>;
  readonly 'S-ADDRESS-BAND': Of<'device' | 'address' | 'band' | 'role'>;
  readonly 'S-ADDRESS-EDGE': Of<'device' | 'address' | 'last'>;
  readonly 'S-ADDRESS-FACTORY': Of<'device' | 'address' | 'other'>;
  readonly 'S-ADDRESS-PROPOSED': Of<'device' | 'address' | 'kind'>;
  readonly 'S-ADDRESS-FREED': Of<'device' | 'address' | 'whose'>;
  readonly 'S-LOAN-OUTSIDE': Of<'device' | 'lent' | 'network'>;
  readonly 'S-LOAN-KEPT': Of<'device' | 'lent' | 'subnet' | 'whose'>;
  readonly 'S-SERVER-DEVICE': Of<'device' | 'address' | 'subnet'>;
  readonly 'S-MASK-GAP': Of<'device' | 'mask'>;
  readonly 'S-MASK-OTHER': Of<'device' | 'mask' | 'wanted' | 'effect'>;
  readonly 'S-OWN-GATEWAY': Of<'device' | 'gateway' | 'network' | 'why'>;
  readonly 'S-GATEWAYS-TWO': Of<'device' | 'gateways'>;
  readonly 'S-INTERFACES-ONE-SUBNET': Of<'device' | 'subnet'>;
  readonly 'S-MAC-TWICE': Of<'mac' | 'devices'>;
  readonly 'S-MAC-GROUP': Of<'device' | 'mac'>;
  readonly 'S-SWITCH-CODE': Of<'device' | 'last' | 'act' | 'kind'>;
  readonly 'S-SWITCH-NEVER': Of<'device' | 'address' | 'kind'>;
  readonly 'S-SWITCH-BASE': Of<'device' | 'address' | 'base'>;
  readonly 'S-SWITCH-NAME': Of<'device' | 'name' | 'pattern'>;
  readonly 'S-KIND-GONE': Of<'device' | 'kind'>;
  readonly 'S-WAY-MISSING': Of<'device' | 'way' | 'kind'>;
  readonly 'S-WAY-CONTROLLER': Of<'device'>;
  readonly 'S-HOST-NAME': RefusedName;
  readonly 'S-HOST-NAME-TWICE': Of<'name' | 'devices'>;
  readonly 'S-STATION-NAME': RefusedName;
  readonly 'S-STATION-NAME-TWICE': Of<'name' | 'devices'>;
  readonly 'S-DHCP-NAME': RefusedName;
  readonly 'S-DHCP-NAME-TWICE': Of<'name' | 'devices'>;
  readonly 'S-VARIABLE': RefusedName;
  readonly 'S-VARIABLE-TWICE': Of<'name' | 'devices'>;
  readonly 'S-NAME-NEAR': Of<'device' | 'name' | 'host'>;
  readonly 'S-TITLE-TWICE': Of<'devices' | 'count' | 'title'>;
  readonly 'S-CONTROLLER-GONE': Of<'device'>;
  readonly 'S-CONTROLLER-SELF': Of<'device'>;
  readonly 'S-ROLE-NONE': Of<'device' | 'controller' | 'kind' | 'controllerKind'>;
  readonly 'S-REALM-APART': Of<'device' | 'controller'>;
  readonly 'S-PROTOCOL-KIND': Of<'device' | 'protocol' | 'kind'>;
  readonly 'S-CONNECTIONS-LIMIT': Of<'device' | 'have' | 'most'>;
  readonly 'S-PACKETS-LIMIT': Of<'device' | 'have' | 'most'>;
  readonly 'S-SIZE': Of<'device' | 'way' | 'own' | 'other'>;
  readonly 'S-SIZE-UNITS': Of<'device' | 'way' | 'own' | 'other' | 'factor'>;
  readonly 'S-SIZE-HEADER': Of<'device' | 'way' | 'own' | 'other' | 'header'>;
  readonly 'S-VIEWPOINT': Of<'device' | 'inDevice' | 'outDevice'>;
  readonly 'S-SIZE-OFFERED': Of<'device' | 'way' | 'stated' | 'need' | 'offered'>;
  readonly 'S-CONFIG-SIZE': Of<'device' | 'own' | 'other'>;
  readonly 'S-INSTANCE': Of<'device' | 'what' | 'own' | 'other'>;
  readonly 'S-INTERVAL': Of<'device' | 'own' | 'other'>;
  readonly 'S-INTERVAL-SHORT': Of<'device' | 'interval' | 'least' | 'kind'>;
  readonly 'S-REVISION': Of<'device' | 'own' | 'other'>;
  readonly 'S-REGISTER-AREA': Of<'device' | 'own' | 'other' | 'ownArea' | 'otherArea'>;
  readonly 'S-REGISTER-ONE': Of<'device' | 'own' | 'other' | 'ownCounting' | 'otherCounting'>;
  readonly 'S-REGISTER': Of<'device' | 'own' | 'other'>;
  readonly 'S-SLOT-TWICE': Of<'device' | 'slot'>;
  readonly 'S-SLOT-OFFER': Of<'device' | 'slot' | 'module' | 'kind'>;
  readonly 'S-UNIT-TWICE': Of<'device' | 'line' | 'unit' | 'sub' | 'other'>;
  readonly 'S-UNIT-RANGE': Of<'device' | 'line' | 'unit' | 'sub'>;
  readonly 'S-LINE-PORT': Of<'device' | 'line' | 'other' | 'port'>;
  readonly 'S-REFERENCE-GONE': Of<'device' | 'what'>;
  readonly 'S-REFERENCE-OLD': Of<'device' | 'what' | 'named' | 'address' | 'now'>;
  readonly 'S-PORT-TWICE': Of<'device' | 'port'>;
  readonly 'S-CABLE-GONE': Of<'port'>;
  readonly 'S-ROUTE-VIA': Of<'device' | 'to' | 'via'>;
  readonly 'S-ROUTE-NOBODY': Of<'device' | 'kind'>;
  readonly 'S-TRANSLATION-SIZE': Of<'device' | 'inside' | 'outside'>;
}

interface SnagOf<Rule extends SnagRule> {
  readonly rule: Rule;
  readonly severity: Severity;
  /** The thing it is at. */
  readonly type: ThingType;
  readonly id: string;
  /** The field of the thing that would be changed. */
  readonly field: string | undefined;
  readonly facts: SnagFacts[Rule];
  /** Others it is at too: ids of interfaces or devices. */
  readonly also: readonly string[];
}

/** Something wrong or doubtful in the plan: which rule, where, and the values a sentence needs. */
export type Snag = { readonly [Rule in SnagRule]: SnagOf<Rule> }[SnagRule];

export const countWrong = (snags: readonly Snag[]): number =>
  snags.filter((one) => one.severity === 'wrong').length;

/** What an acceptance names: the same rule at the same place, with the same values. */
export const snagKey = (snag: Snag): string =>
  `${snag.rule}@${snag.id}${snag.field === undefined ? '' : `.${snag.field}`}`;

/** One of a rule. */
export type SnagBy<Rule extends SnagRule> = Extract<Snag, { readonly rule: Rule }>;

interface Place {
  readonly type: ThingType;
  readonly id: string;
  readonly field?: string;
  readonly also?: readonly string[];
  /** Where one rule weighs differently by its circumstances. */
  readonly severity?: Severity;
}

export const snag = <Rule extends SnagRule>(
  rule: Rule,
  place: Place,
  facts: SnagFacts[Rule],
): Snag => {
  const one: SnagOf<Rule> = {
    rule,
    severity: place.severity ?? SNAG_RULES[rule],
    type: place.type,
    id: place.id,
    field: place.field,
    facts,
    also: place.also ?? [],
  };
  return one as unknown as Snag;
};

/** Nothing speaks against nearly every thing: one list for all of them. */
export const NO_SNAGS: readonly Snag[] = [];

/** Both, without a new list where one of them is empty. */
export const joined = (a: readonly Snag[], b: readonly Snag[]): readonly Snag[] =>
  b.length === 0 ? a : a.length === 0 ? b : [...a, ...b];
