import { randomUUID } from 'node:crypto';
import { must, parseIpv4, parsePrefix, type Ipv4 } from '@ipsonomo/core/net';
import {
  defaultBands,
  docOf,
  findKind,
  nextFree,
  planOf,
  proposedName,
  proposedSwitchName,
  toDevice,
  toInterface,
  toSubnet,
  type ConnectionEnd,
  type Device,
  type Edit,
  type Plan,
  type PlanDoc,
  type Subnet,
  type Way,
} from '@ipsonomo/core/plan';
import { HALL_NAME, hallEdits } from './demo-hall';
import type { Store } from './store/store';

// The demo job "Tern Cove hatchery": what its planners wrote down. The practice site holds the same
// devices, with a few things wrong on purpose. All of it is invented.

type Row = readonly [
  title: string,
  kind: string,
  way: Way,
  area: string,
  cabinet: string,
  position: string,
  address?: string,
];

const HALL: readonly Row[] = [
  [
    'Controller, filter hall',
    'osterhew-controller-k',
    'makers-tool',
    'Filter hall',
    'FH1',
    '1',
    '172.22.40.10',
  ],
  [
    'Filter hall station',
    'quillfen-station-8',
    'bootp',
    'Filter hall',
    'FH2',
    '1',
    '172.22.40.102',
  ],
  ['Drum filter drive 1', 'dunvarrick-drive-m', 'bootp', 'Filter hall', 'FH2', '2', '172.22.40.85'],
  ['Drum filter drive 2', 'dunvarrick-drive-m', 'bootp', 'Filter hall', 'FH2', '3', '172.22.40.86'],
  ['Backwash drive', 'dunvarrick-drive-m', 'bootp', 'Filter hall', 'FH2', '6', '172.22.40.88'],
  ['Sludge valve block', 'tarnwick-valves-16', 'bootp', 'Filter hall', 'FH3', '1', '172.22.40.101'],
  [
    'Oxygen valve block',
    'tarnwick-valves-16',
    'bootp',
    'Oxygen plant',
    'OX1',
    '1',
    '172.22.40.104',
  ],
  ['Intake pump drive', 'belloch-drive-d4', 'dhcp-mac', 'Intake', 'IN1', '2', '172.22.40.80'],
  ['Intake flow meter', 'marrowby-flow-f2', 'dhcp-mac', 'Intake', 'IN1', '4', '172.22.40.150'],
  ['Sorting block 1', 'eldrup-block-8', 'layer2-name', 'Sorting line', 'SL1', '1', '172.22.40.105'],
  ['Sorting block 2', 'eldrup-block-8', 'layer2-name', 'Sorting line', 'SL1', '2', '172.22.40.106'],
  ['Sorting block 3', 'eldrup-block-8', 'layer2-name', 'Sorting line', 'SL1', '3', '172.22.40.107'],
  ['Sorting block 4', 'eldrup-block-8', 'layer2-name', 'Sorting line', 'SL1', '4', '172.22.40.108'],
  [
    'Grader station 1',
    'wendle-station-20',
    'switches',
    'Sorting line',
    'SL2',
    '1',
    '172.22.40.110',
  ],
  [
    'Grader station 2',
    'wendle-station-20',
    'switches',
    'Sorting line',
    'SL2',
    '2',
    '172.22.40.111',
  ],
  [
    'Grader terminal 1',
    'strathan-terminal-4',
    'dhcp-name',
    'Sorting line',
    'SL2',
    '3',
    '172.22.40.112',
  ],
  [
    'Grader terminal 2',
    'strathan-terminal-4',
    'dhcp-name',
    'Sorting line',
    'SL2',
    '4',
    '172.22.40.113',
  ],
  [
    'Inspection camera',
    'fennrick-camera-c1',
    'web-page',
    'Sorting line',
    'SL1',
    '5',
    '172.22.40.151',
  ],
  [
    'Inspection camera 2',
    'fennrick-camera-c1',
    'web-page',
    'Sorting line',
    'SL1',
    '8',
    '172.22.40.152',
  ],
  ['Sorting block 5', 'eldrup-block-8', 'controller', 'Sorting line', 'SL1', '6', '172.22.40.115'],
  ['Sorting block 6', 'eldrup-block-8', 'controller', 'Sorting line', 'SL1', '7', '172.22.40.116'],
  ['Fry scale 1', 'marrowby-weigher-w3', 'keypad', 'Laboratory', 'LB1', '1', '172.22.40.153'],
  ['Fry scale 2', 'marrowby-weigher-w3', 'keypad', 'Laboratory', 'LB1', '2', '172.22.40.154'],
  ['Laboratory switch', 'eskmere-switch-8', 'card', 'Laboratory', 'LB1', '3', '172.22.40.4'],
];

const FEEDING: readonly Row[] = [
  ['Feeding station', 'quillfen-station-8', 'bootp', 'Feeding', 'FD1', '1'],
  ['Feeding robot drive', 'belloch-drive-d4', 'dhcp-mac', 'Feeding', 'FD1', '2'],
  ['Feeding valve block', 'tarnwick-valves-16', 'bootp', 'Feeding', 'FD1', '3'],
  ['Weighing head', 'marrowby-weigher-w3', 'dhcp-mac', 'Feeding', 'FD2', '1'],
];

const PERSON = 'planning';

const VALVES: ConnectionEnd = {
  ...{ inSize: 2, outSize: 2, unitBits: '8', viewpoint: 'controller', headerBytes: 0 },
  ...{
    inInstance: 101,
    outInstance: 102,
    configInstance: 103,
    configBytes: undefined,
    intervalMillis: 10,
  },
  ...{ revision: '', register: undefined, counting: 'from-0' },
};

/** What is planned of every device of a kind: the modules in its slots, the data of its connection. */
const HELD: Readonly<Record<string, Partial<Device>>> = {
  'eldrup-block-8': {
    modules: [
      { slot: 1, title: '8 channels' },
      { slot: 2, title: 'channel state' },
    ],
  },
  'tarnwick-valves-16': {
    connection: { protocol: 'EtherNet/IP', device: VALVES, controller: VALVES },
  },
};

function subnetOf(name: string, network: string, gateway: string, vlan: number): Subnet {
  const prefix = must(parsePrefix(network));
  return toSubnet({
    id: randomUUID(),
    name,
    prefix,
    gateway: must(parseIpv4(gateway)),
    vlan,
    purpose: 'machine network',
    bands: defaultBands(prefix),
  });
}

/** Writes the demo jobs unless they are there. */
export async function seedDemo(store: Store): Promise<void> {
  const names = new Set((await store.jobs()).map((job) => job.name));
  if (!names.has(HATCHERY)) await seedHatchery(store);
  if (!names.has(HALL_NAME)) await seedHall(store);
}

const HATCHERY = 'Tern Cove hatchery';

/** Forgotten by who planned it: it cannot answer anybody beyond its own subnet. */
const NO_GATEWAY: ReadonlySet<string> = new Set(['Feeding robot drive']);

const seedHall = (store: Store): Promise<string> =>
  seed(store, HALL_NAME, 'read what the line builder sent', hallEdits);

async function seedHatchery(store: Store): Promise<void> {
  const id = await seed(store, HATCHERY, 'plan of the hatchery', (doc) => demoEdits(planOf(doc)));
  const { last } = await store.revisions(id);
  await store.nameRevision(id, last, 'as issued to site');
  const formats = ['addresses-csv', 'plan'] as const;
  await store.addHandOver(id, { reader: 'it', person: PERSON, revision: last, formats });
}

async function seed(
  store: Store,
  name: string,
  what: string,
  editsOf: (doc: PlanDoc) => readonly Edit[],
): Promise<string> {
  const { id } = await store.addJob(name, name === HATCHERY);
  await store.change({ jobId: id, person: PERSON, what }, ({ doc }) => ({
    edits: editsOf(doc),
    result: undefined,
  }));
  return id;
}

function demoEdits(plan: Plan): readonly Edit[] {
  const edits: Edit[] = [];
  const names = new Set<string>();
  const dhcpNames = new Set<string>();
  let controllerId: string | undefined;
  const parts = [
    [subnetOf('Filter hall', '172.22.40.0/24', '172.22.40.1', 40), HALL],
    [subnetOf('Feeding', '172.22.41.0/24', '172.22.41.1', 41), FEEDING],
  ] as const;
  for (const [subnet, rows] of parts) {
    edits.push({ op: 'add', type: 'subnet', thing: docOf('subnet', subnet) });
    const taken = new Set<Ipv4>();
    for (const [title, kindId, way, area, cabinet, position, planned] of rows) {
      const kind = findKind(plan, kindId);
      if (!kind) throw new Error(`demo: no kind ${kindId}`);
      const address = planned ? must(parseIpv4(planned)) : nextFree(subnet, kind.role, { taken });
      if (address === undefined) throw new Error(`demo: ${subnet.name} is full`);
      taken.add(address);
      const id = randomUUID();
      const place = { area, cabinet, position };
      const hostName = proposedName(plan, place, kind, names, address);
      names.add(hostName);
      const dhcpName = way === 'dhcp-name' ? proposedSwitchName(kind, dhcpNames) : undefined;
      if (dhcpName) dhcpNames.add(dhcpName);
      if (kind.role === 'controllers') controllerId ??= id;
      const device = toDevice({
        ...{ id, title, name: hostName, dhcpName, kindId, way, ...place },
        // The hall's controller starts these by their names, and works with those of the feeding.
        ...(HELD[kindId] ?? {}),
        controllerId: way === 'controller' || area === 'Feeding' ? controllerId : undefined,
      });
      const fields = { id: randomUUID(), deviceId: id, subnetId: subnet.id, address };
      const at = toInterface({ ...fields, gateway: NO_GATEWAY.has(title) ? 'none' : 'subnet' });
      edits.push(
        { op: 'add', type: 'device', thing: docOf('device', device) },
        { op: 'add', type: 'interface', thing: docOf('interface', at) },
      );
    }
  }
  return edits;
}
