import { formatIpv4, judgeLabel, parseMac } from '@ipsonomo/core/net';
import {
  FOUND_VALUES,
  interfacesOf,
  stationNameOf,
  type CheckFacts,
  type FoundValue,
  type Plan,
} from '@ipsonomo/core/plan';
import {
  type FoundDifference,
  type ProofEnd,
  type SettlementKind,
  type Stranger,
} from '@ipsonomo/core/proof';

const DIFFERENCE: Readonly<
  Record<FoundDifference['what'], (difference: FoundDifference) => string>
> = {
  unbound: ({ found }) => `something answers (${found}), but no MAC is bound yet`,
  several: ({ expected, found }) =>
    `more than one device answers: expected ${expected || 'one'}, found ${found}`,
  mac: ({ expected, found }) => `another device answers: expected ${expected}, found ${found}`,
  'no-ping': () => 'it answers ARP but not ping',
  kind: ({ expected, found }) =>
    `it says it is of another kind: ${found} instead of ${expected} (maker / type / product)`,
  article: ({ expected, found }) => `it says its order number is ${found}; planned is ${expected}`,
  revision: ({ expected, found }) =>
    `it says it is of revision ${found}; its kind stands for ${expected}`,
  serial: ({ expected, found }) => `its serial number is ${found}; noted is ${expected}`,
  mask: ({ expected, found }) =>
    `its mask is ${found} instead of ${expected}: near it answers, and from elsewhere perhaps not`,
  gateway: ({ expected, found }) =>
    `its gateway is ${found} instead of ${expected}: from another subnet it cannot be reached`,
  name: ({ expected, found }) =>
    found === ''
      ? `it does not tell its name over layer 2; planned is ${expected}`
      : `over layer 2 its name is ${found}; planned is ${expected}`,
  module: ({ expected, found }) => `its modules are ${found}; planned is ${expected}`,
  size: ({ expected, found }) =>
    `it sends and takes ${found} bytes; planned at its end is ${expected}`,
  instance: ({ expected }) => `it has no data at instance ${expected}`,
  service: ({ expected, found }) => `${expected}: ${found}`,
  identity: () => 'it lets itself be asked who it is, and what it answers cannot be read',
};

/** One difference between planned and found, as a clause. */
export const differenceWords = (difference: FoundDifference): string =>
  DIFFERENCE[difference.what](difference);

/** What stands between planned and found: "revision". */
export const DIFFERENCE_TITLES: Readonly<Record<FoundDifference['what'], string>> = {
  ...{ unbound: 'MAC', several: 'MAC', mac: 'MAC', 'no-ping': 'ping', kind: 'kind' },
  ...{ article: 'order number', revision: 'revision', serial: 'serial number', name: 'name' },
  ...{ mask: 'mask', gateway: 'gateway', module: 'modules', size: 'bytes' },
  instance: 'instance',
  ...{ service: 'service', identity: 'identity' },
};

/** A value that was found, as it is listed: "revision". */
export const FOUND_WORDS: Readonly<Record<FoundValue | 'mac', string>> = {
  ...{ mac: 'MAC', name: 'name', product: 'product', revision: 'revision', hardware: 'hardware' },
  ...{ serial: 'serial number', mask: 'mask', gateway: 'gateway', page: 'page' },
  ...{ services: 'services', connection: 'connection', modules: 'modules' },
  ...{ in: 'bytes in', out: 'bytes out', 'in-instance': 'instance in' },
  ...{ 'out-instance': 'instance out', 'config-instance': 'instance config.' },
};

/** All that was found, whether it is as planned or not, as one line. */
export const foundWords = (facts: CheckFacts): string =>
  [['mac', facts.found] as const, ...FOUND_VALUES.map((value) => [value, facts[value]] as const)]
    .flatMap(([value, has]) => (has === undefined ? [] : [`${FOUND_WORDS[value]} ${has}`]))
    .join(' · ');

/** What is wrong, where planned and found stand beside it. */
export const DIFFERENCE_HEADS: Readonly<Record<FoundDifference['what'], string>> = {
  ...{ unbound: 'no MAC is bound yet', several: 'more than one device answers' },
  ...{ mac: 'another device answers', 'no-ping': 'it answers ARP but not ping' },
  ...{ kind: 'another kind (maker / type / product)', article: 'another order number' },
  ...{ revision: 'another revision', serial: 'another serial number', name: 'another name' },
  ...{ mask: 'another mask', gateway: 'another gateway', module: 'other modules' },
  ...{ size: 'other sizes', instance: 'no data at that instance' },
  ...{ service: 'a service does not answer', identity: 'its answer cannot be read' },
};

/** What a person may say of a difference. */
export const SETTLEMENT_WORDS: Readonly<Record<SettlementKind, string>> = {
  'plan-was-wrong': 'The plan was wrong: take what was found',
  swapped: 'The two are swapped: exchange them in the plan',
  'device-is-wrong': 'The device is wrong: put it right',
  'another-device': 'It was replaced by another device',
  'both-stay': 'Both stay as they are …',
};

const END_WORDS: Readonly<Record<ProofEnd, string>> = {
  done: 'to its end',
  stopped: 'stopped by hand',
  'no-link': 'ended: the cable had no link',
  'cut-off': 'cut off: the server was restarted in the middle',
};

export const proofEndWords = (how: ProofEnd): string => END_WORDS[how];

/** What the plan has at the addresses and by the names of a stranger; empty where it has nothing there. */
export function strangerPlace(
  plan: Plan,
  { addresses, names }: Pick<Stranger, 'addresses' | 'names'>,
): string {
  const gateways = plan.subnets.filter(
    ({ gateway }) => gateway !== undefined && addresses.includes(formatIpv4(gateway)),
  );
  const owners = interfacesOf(plan).filter(({ at }) => addresses.includes(formatIpv4(at.address)));
  return [
    ...gateways.map(({ name }) => `has the gateway address of ${name}`),
    ...owners.map(({ device }) => `has the address of ${device.title}`),
    ...plan.devices
      .filter((one) => names.includes(stationNameOf(one)) || names.includes(one.name))
      .map(({ title }) => `has the name of ${title}`),
  ].join('; ');
}

/** The device that the plan has a MAC for; empty where it has none. */
export function ownerTitle(plan: Plan, mac: string): string {
  const parsed = parseMac(mac);
  return parsed.ok
    ? (interfacesOf(plan).find(({ at }) => at.mac === parsed.value)?.device.title ?? '')
    : '';
}

/** Whose planned MAC this one nearly is: a letter read wrongly, or the next of the same box; empty where it is nobody's. */
export function nearOwnerTitle(plan: Plan, mac: string): string {
  const parsed = parseMac(mac);
  if (!parsed.ok) return '';
  const near = interfacesOf(plan).find(({ at }) => {
    const kind = at.mac === undefined ? 'other' : judgeLabel(at.mac, parsed.value).kind;
    return kind === 'alike' || kind === 'near';
  });
  return near?.device.title ?? '';
}

/** What is known of somebody whom nobody planned, as one line. */
export function strangerWords({ names, services, said, page, asks }: Stranger): string {
  const open = services.map(({ name, port }) => `${name} (${port})`).join(', ');
  return (
    [
      asks
        ? `asks for an address by ${asks.by}${asks.vendorClass ? ` as "${asks.vendorClass}"` : ''}`
        : '',
      names.length > 0 ? `called ${names.join(', ')}` : '',
      said ? `says it is ${said.product}, revision ${said.revision}` : '',
      said?.serial ? `serial number ${said.serial}` : '',
      page === null ? '' : `its page is titled "${page}"`,
      open === '' ? '' : `open: ${open}`,
    ]
      .filter(Boolean)
      .join('; ') || 'nothing more is known of it'
  );
}
