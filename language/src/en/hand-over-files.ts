import type { FormatId, LeftOut, LeftReason, Reader } from '@ipsonomo/core/api';
import type { PlaceKind } from '@ipsonomo/core/written';

// What stands in the files that leave, and what is said of them.

export const READER_TITLES: Readonly<Record<Reader, string>> = {
  it: 'For IT',
  programmer: 'For the controller’s programmer',
  cabinet: 'For the cabinet',
  record: 'For the record',
};

export const FORMAT_TITLES: Readonly<Record<FormatId, string>> = {
  'addresses-csv': 'Address list, CSV',
  'addresses-xlsx': 'Address list, XLSX',
  dnsmasq: 'DHCP reservations for dnsmasq',
  dhcpd: 'DHCP reservations for ISC dhcpd',
  kea: 'DHCP reservations for Kea',
  hosts: 'Hosts file',
  zones: 'DNS zones, forward and reverse',
  firewall: 'Firewall table, CSV',
  nftables: 'Firewall rules for nftables',
  targets: 'Targets for monitoring',
  'connections-csv': 'Connection sheet, CSV',
  'connections-xlsx': 'Connection sheet, XLSX',
  'connections-pdf': 'Connection sheet, PDF',
  names: 'Names and addresses, CSV',
  corrections: 'To correct in the project, CSV',
  'written-places': 'Where addresses are written, CSV',
  'labels-pdf': 'Labels, PDF',
  'labels-svg': 'Labels one by one, SVG',
  'labels-png': 'Labels one by one, PNG',
  'swap-cards': 'Swap cards, PDF',
  'cabinet-sheets': 'Sheets for the cabinet doors, PDF',
  'proof-pdf': 'Proof, PDF',
  'proof-json': 'Proof, JSON',
  'picture-svg': 'The site as it is connected, SVG',
  plan: 'The plan with its papers, JSON',
};

export const FORMAT_ABOUT: Readonly<Record<FormatId, string>> = {
  'addresses-csv':
    'One line for each interface: names, place, kind, address, mask, gateway, MAC, way, how far it is seen to be.',
  'addresses-xlsx':
    'The same as a sheet with a frozen head, a filter, and a column that sorts addresses rightly.',
  dnsmasq: 'By MAC, by name and by switch port. Nobody else gets an address.',
  dhcpd: 'By MAC, by name and by switch port. Nobody else gets an address.',
  kea: 'By MAC, by name and by switch port. Nobody else gets an address.',
  hosts: 'Address and host name, a line each.',
  zones: 'Addresses by names and names by addresses; the serial is the revision of the plan.',
  firewall: 'Every connection the plan needs: source, target, protocol, port, and why.',
  nftables: 'The same as rules: what the plan needs passes between subnets, all else is dropped.',
  targets: 'The devices that answer ping, with their places as labels.',
  'connections-csv':
    'By controller: name, address, revision, instances, sizes in bytes and words, interval, registers, route path.',
  'connections-xlsx': 'The same with a sheet for each controller.',
  'connections-pdf': 'The same on paper.',
  names:
    'Station name, DHCP name and MAC beside the address, for controllers that give addresses themselves.',
  corrections: 'What the controller’s project says otherwise than the plan.',
  'written-places': 'Everywhere that an address or a name stands, to tick off after a renumbering.',
  'labels-pdf':
    'Name, address, mask, MAC and a code that opens the device, on sheets of stickers or a roll.',
  'labels-svg': 'Each label as a drawing of its own.',
  'labels-png': 'Each label as a picture of its own.',
  'swap-cards':
    'A page for each device: how it is replaced without a laptop, with its switches drawn.',
  'cabinet-sheets':
    'A page for each cabinet: all its devices by position, to hang inside its door.',
  'proof-pdf':
    'What was found of every device, by which evidence, when and by whom; what was not looked at.',
  'proof-json': 'The same for machines, chained and signed.',
  'picture-svg':
    'Every subnet with its devices, how far each is seen to be, and what joins the subnets.',
  plan: 'Everything that was planned, to keep, to compare, to begin another job with.',
};

/** What a format follows; empty where there is nothing to follow. */
export const FORMAT_STANDARD: Readonly<Record<FormatId, string>> = {
  'addresses-csv': 'RFC 4180',
  'addresses-xlsx': 'ISO/IEC 29500 (Office Open XML)',
  dnsmasq: 'dnsmasq(8); RFC 2131, RFC 2132, RFC 3046',
  dhcpd: 'dhcpd.conf(5); RFC 2131, RFC 2132, RFC 3046, RFC 951',
  kea: 'JSON (RFC 8259); RFC 2131, RFC 2132, RFC 3046',
  hosts: 'hosts(5)',
  zones: 'RFC 1035 §5; RFC 2317 for less than a /24',
  firewall: 'RFC 4180; ports as IANA registers them',
  nftables: 'nft(8)',
  targets: 'JSON (RFC 8259), file-based discovery of Prometheus',
  'connections-csv': 'RFC 4180',
  'connections-xlsx': 'ISO/IEC 29500',
  'connections-pdf': 'ISO 32000 (PDF)',
  names: 'RFC 4180',
  corrections: 'RFC 4180',
  'written-places': 'RFC 4180',
  'labels-pdf': 'ISO 32000; ISO/IEC 18004 (QR)',
  'labels-svg': 'SVG 1.1; ISO/IEC 18004',
  'labels-png': 'PNG (ISO/IEC 15948); ISO/IEC 18004',
  'swap-cards': 'ISO 32000',
  'cabinet-sheets': 'ISO 32000',
  'proof-pdf': 'ISO 32000',
  'proof-json': 'JSON (RFC 8259); Ed25519 (RFC 8032), SHA-256 (FIPS 180-4)',
  'picture-svg': 'SVG 1.1',
  plan: 'JSON (RFC 8259), docs/plan.schema.json',
};

/** What it cannot hold; empty where it holds all. */
export const FORMAT_CANNOT: Readonly<Record<FormatId, string>> = {
  'addresses-csv': 'Text that a spreadsheet would run as a formula has an apostrophe before it.',
  'addresses-xlsx': 'Control characters.',
  dnsmasq: 'One address or one key twice.',
  dhcpd: 'One address or one key twice.',
  kea: 'One address or one key twice; it answers BootP only with its hook, whose path is that of Debian on amd64.',
  hosts: 'Names that are no host names; two devices of one name.',
  zones: 'Names that are no host names; two devices of one name; subnets without a domain.',
  firewall: 'Connections to devices whose kind says no service.',
  nftables:
    'Connections within a subnet, which no router sees; PROFINET’s own frames, which have no address.',
  targets: 'Devices that answer no ping.',
  'connections-csv': 'Devices without a controller.',
  'connections-xlsx': 'Devices without a controller; control characters.',
  'connections-pdf': 'Letters that its font has not.',
  names: '',
  corrections: 'Devices of which nothing was entered.',
  'written-places': '',
  'labels-pdf': 'Letters that its font has not; text that has no room is made smaller.',
  'labels-svg': '',
  'labels-png': 'Letters that its font has not.',
  'swap-cards': 'Letters that its font has not.',
  'cabinet-sheets': 'Letters that its font has not.',
  'proof-pdf': 'Letters that its font has not.',
  'proof-json': '',
  'picture-svg': 'Long titles are cut in their middle.',
  plan: 'What was seen: that is the proof.',
};

const WHY: Readonly<Record<LeftReason, (value: string) => string>> = {
  'no-mac': () => 'no MAC is bound yet',
  'no-port': () => 'its switch port is not known yet',
  'no-name': () => 'it has no name to be known by',
  'same-address': () => 'another one is planned with this address',
  'same-key': (value) => `another one is known by the same: ${value}`,
  outside: () => 'its address is outside its subnet',
  'not-a-host-name': (value) => `"${value}" is no host name`,
  'same-name': (value) => `another device has the name ${value} too, capitals apart`,
  'no-domain': (value) => `its subnet ${value} has no domain`,
  'no-service': (value) => `its kind says no service of ${value}`,
  'no-ping': () => 'it answers no ping',
  'no-connection': () => 'it has no connection to compare',
  'not-in-font': (value) => `the font of the paper has no ${value}`,
  'no-room': (value) => `"${value}" had no room and was cut`,
};

/** What is not in a file, and why. */
export const leftOutWords = ({
  title,
  address,
  reason,
  value,
}: Pick<LeftOut, 'title' | 'address' | 'reason' | 'value'>): string =>
  `${title}, ${address}: ${WHY[reason](value)}`;

/** The heads of an address list. */
export const LIST_HEADS = {
  device: 'device',
  host: 'host name',
  station: 'station name',
  area: 'area',
  cabinet: 'cabinet',
  position: 'position',
  maker: 'maker',
  kind: 'kind',
  orderNumber: 'order number',
  serial: 'serial number',
  subnet: 'subnet',
  network: 'network',
  vlan: 'VLAN',
  address: 'address',
  sort: 'address as a number',
  mask: 'mask',
  gateway: 'gateway',
  mac: 'MAC',
  way: 'way',
  stage: 'stage',
  evidence: 'last evidence',
  seenAt: 'seen at',
} as const;

/** Sheets and rolls of labels, by their id. */
export const STOCK_TITLES: Readonly<Record<string, string>> = {
  'a4-3x7': 'A4, 3 × 7, 63.5 × 38.1 mm',
  'a4-3x8': 'A4, 3 × 8, 64 × 33.9 mm',
  'a4-4x12': 'A4, 4 × 12, 45.7 × 21.2 mm',
  'a4-5x13': 'A4, 5 × 13, 38.1 × 21.2 mm',
  'a4-2x5': 'A4, 2 × 5, 99.1 × 57 mm',
  'roll-62x29': 'roll, 62 × 29 mm',
  'roll-50x25': 'roll, 50 × 25 mm',
  'roll-36x18': 'roll, 36 × 18 mm',
};

export const NEED_HEADS: readonly string[] = [
  ...['source', 'source address', 'target', 'target address', 'protocol', 'port', 'service'],
  ...['why', 'where'],
];

export const NEED_WORDS = {
  controls: 'the controller and its device',
  'named-in-it': 'named in it',
  services: 'service laptop',
  answers: 'what the device sends by itself',
  inside: 'within one subnet',
} as const;

export const NAME_HEADS: readonly string[] = [
  ...['controller', 'device', 'station name', 'DHCP name', 'address', 'MAC'],
];

export const CONNECTION_HEADS: readonly string[] = [
  ...['device', 'station name', 'variable', 'address', 'revision', 'protocol'],
  ...['instance in', 'instance out', 'instance configuration', 'configuration, bytes'],
  ...['in, bytes', 'in, words', 'out, bytes', 'out, words', 'interval, ms'],
  ...['TCP port of the line', 'units on the line', 'register', 'route path', 'route path, numbers'],
];

export const CORRECTION_HEADS: readonly string[] = [
  ...['controller', 'device', 'value', 'stands there', 'has to become'],
];

export const PLACE_HEADS: readonly string[] = [
  ...['device', 'address', 'where', 'whose', 'has to stand there', 'ticked by', 'ticked at'],
];

export const SHEET_HEADS: readonly string[] = [
  ...['position', 'device', 'name', 'address', 'MAC', 'kind, way', 'swap'],
];

export const COUNTING_WORDS = {
  'from-0': 'counted from 0',
  'from-1': 'counted from 1',
  'area-digit': 'with an area digit',
  wire: 'on the wire',
} as const;

export const PLACE_WORDS: Readonly<Record<PlaceKind, string>> = {
  project: 'project of its controller',
  panel: 'project of a panel',
  named: 'named in another device',
  gateway: 'gateway of every device of a subnet',
  route: 'static route',
  translation: 'address translation',
  'dhcp-server': 'DHCP server of a subnet',
  reservation: 'DHCP reservation',
  firewall: 'firewall',
  dns: 'DNS zone',
  hosts: 'hosts file',
  monitoring: 'monitoring',
  label: 'label on the device',
};

export const CARD_WORDS = {
  name: 'Name',
  mask: 'Mask',
  gateway: 'Gateway',
  mac: 'MAC',
  none: 'none',
  laptop: 'A laptop with Ipsonomo is needed',
  noLaptop: 'No laptop is needed',
  withLaptop: 'with a laptop',
  withoutLaptop: 'without a laptop',
  cabinet: 'Cabinet',
  noCabinet: 'Without a cabinet',
} as const;

export const PROOF_WORDS = {
  head: 'Head of the chain',
  headAbout:
    'It seals every piece of evidence, every revision and this report. Compare it with what the file says: npm run ipsonomo -- verify FILE HEAD',
  key: 'Key of this installation, SHA-256',
  summary: 'In short',
  title: 'proof',
  proven: 'proven',
  contradicted: 'found otherwise than planned',
  accepted: 'otherwise than planned, accepted with a reason',
  silent: 'asked, and did not answer',
  stale: 'proven too long ago',
  'not-asked': 'not looked at, or not for all that its kind needs',
  settled: 'stays',
  open: 'open',
  notLookedAtTitle: 'Not looked at',
  nothingNotLookedAt: 'Everything that was meant was looked at.',
  snags: 'Open snags',
  noSnags: 'Nothing in the plan speaks against it.',
  acceptedTitle: 'Accepted, with a reason',
  nothingAccepted: 'Nothing was accepted otherwise than planned.',
  devices: 'Device by device',
  by: 'by',
  from: 'from',
  planned: 'planned',
  noEvidence: 'nobody looked at it',
} as const;

export const FILE_WORDS = {
  controller: 'controller',
  addresses: 'Addresses',
  labels: 'labels',
  swapCards: 'swap cards',
  picture: 'the site as it is connected',
  cabinetSheets: 'sheets for the cabinet doors',
  connections: 'connection sheet',
  proof: 'proof',
  dhcp: 'DHCP reservations of a plan. Written by Ipsonomo; change the plan, not this file.',
  nobodyElse: 'Nobody gets an address who is not named here.',
  notHere: 'Not in this file',
  hosts: 'Host names of a plan. Written by Ipsonomo; change the plan, not this file.',
  zone: 'A zone of a plan. Written by Ipsonomo; change the plan, not this file.',
  delegate: 'For whoever keeps the zone above: these names lead here (RFC 2317).',
  firewall:
    'What a plan needs between subnets. Written by Ipsonomo; change the plan, not this file.',
} as const;

/** The first lines of a file: of which job and which state it is, and what stands against it. */
export const stateLines = ({
  job,
  revision,
  at,
  wrong,
  people,
}: {
  readonly job: string;
  readonly revision: number;
  /** As it is read where it was written. */
  readonly at: string;
  readonly wrong: number;
  /** Who said that it leaves all the same; empty where nothing is wrong. */
  readonly people: string;
}): readonly string[] => [
  `${job}, revision ${revision}, ${at}`,
  ...(wrong > 0
    ? [
        `! ${wrong} ${wrong === 1 ? 'thing is' : 'things are'} wrong in this plan${people === '' ? '' : `, handed over all the same by ${people}`}`,
      ]
    : []),
];

export const VERIFY_WORDS = {
  holds:
    'Both chains hold link by link, the head seals them and the report, what the report says was found stands in the chain, and the signature fits.',
  key: 'Signed with the key:',
  head: 'Its head, to be compared with the one on paper:',
  doesNotShow:
    'It does not show that this key is the installation’s, nor that the clock was right, nor what nobody looked at: compare key and head with what you were told in another way.',
} as const;

/** What is wrong with a proof, as a sentence. */
export function proofFaultWords(fault: {
  readonly code: string;
  readonly place?: number;
  readonly why?: string;
  readonly device?: string;
  readonly what?: string;
  readonly is?: string;
  readonly wanted?: string;
}): string {
  switch (fault.code) {
    case 'unreadable':
      return `The file cannot be read as JSON: ${fault.why}.`;
    case 'format':
      return 'The file is no proof of Ipsonomo, or something of it is missing.';
    case 'evidence':
      return `The chain of evidence breaks at piece ${fault.place}: it was changed, or one before it is gone.`;
    case 'revision':
      return `The chain of revisions breaks at line ${fault.place}: it was changed, or one before it is gone.`;
    case 'report':
      return 'The head does not seal what stands here: the report or a chain was changed.';
    case 'unsupported':
      return `No evidence in the chain shows what the report says of ${fault.device}: ${fault.what}.`;
    case 'other-head':
      return `Its head is ${fault.is}; on paper it is ${fault.wanted}. It is another proof.`;
    case 'no-signature':
      return 'There is no signature beside it: who made it is not shown.';
    default:
      return 'The signature does not fit the file: a byte of it was changed, or another key signed it.';
  }
}
