import { randomUUID } from 'node:crypto';
import { must, parsePrefix } from '@ipsonomo/core/net';
import {
  applyEdits,
  changeOf,
  diffDocs,
  docOf,
  endWithBytes,
  findDoc,
  findKind,
  offeredBytes,
  planOf,
  toDevice,
  toInterface,
  type Block,
  type Connection,
  type ConnectionEnd,
  type Device,
  type Edit,
  type Json,
  type Plan,
  type PlanDoc,
} from '@ipsonomo/core/plan';
import { editsOfSplit } from '@ipsonomo/core/reshape';
import { newRowsOf, type ListRow } from '@ipsonomo/core/sheet';

// The demo job "Tern Cove, second hall": a hall that is still being planned, with what its line builder
// sent and the mistakes in it. There is no practice site for it. All of it is invented.

export const HALL_NAME = 'Tern Cove, second hall';

const NEEDS = [
  ['Tank line', 44, true],
  ['Sorting line', 30, false],
  ['Feeding', 24, false],
  ['Cameras', 12, false],
] as const;

type Item = readonly [title: string, kind: string, count: number, cabinet: string];

const PARTS: Readonly<Record<string, readonly Item[]>> = {
  'Tank line': [
    ['Tank conveyor drive', 'Conveyor drive H', 8, 'TL1'],
    ['Tank station', 'Block I/O station 20', 8, 'TL2'],
    ['Inlet valve block', 'Valve block, 16 coils', 8, 'TL3'],
    ['Water flow', 'Flow meter F2', 6, 'TL4'],
    ['Tank panel', 'Operator panel 12', 2, 'TL1'],
  ],
  'Sorting line': [
    ['Belt drive', 'Conveyor drive H', 10, 'SL1'],
    ['Sorting valves', 'Valve terminal 4', 6, 'SL2'],
    ['Scale gateway', 'Serial gateway, 2 lines', 2, 'SL3'],
    ['Weighing head', 'Weighing head W3', 4, 'SL3'],
  ],
  Feeding: [
    ['Feeding robot', 'Feeding robot 6', 4, 'FE1'],
    ['Feed pump drive', 'Pump drive D4', 10, 'FE2'],
    ['Silo node', 'Sensor node P', 6, 'FE3'],
  ],
  Cameras: [['Sorting camera', 'Inspection camera C1', 8, 'CA1']],
};

/** What no controller of the hall talks to. */
const ALONE = new Set(['Tank panel', 'Silo node', 'Sorting camera']);

/** The plan of the hall as one change of an empty one. */
export function hallEdits(doc: PlanDoc): readonly Edit[] {
  const steps = [splitHall, controllers, devices, router, stations, lines, mistakes];
  const after = steps.reduce((state, step) => apply(state, step(planOf(state), state)), doc);
  return diffDocs(doc, after);
}

function apply(doc: PlanDoc, edits: readonly Edit[]): PlanDoc {
  const done = applyEdits(doc, edits);
  if (!done.ok) throw new Error(`demo: ${JSON.stringify(done.error)}`);
  return done.value.doc;
}

function splitHall(plan: Plan, doc: PlanDoc): readonly Edit[] {
  const block: Block = {
    ...{ id: randomUUID(), name: 'Second hall', realmId: plan.realms[0]?.id ?? '', note: '' },
    prefix: must(parsePrefix('10.62.0.0/21')),
    needs: NEEDS.map(([name, count, isWhole24]) => ({
      ...{ name, devices: count, isWhole24, growthPercent: 25, held: 0, fixed: undefined },
    })),
  };
  return must(editsOfSplit(plan, doc, block, () => randomUUID())).edits;
}

const rows = (plan: Plan, list: readonly ListRow[]): readonly Edit[] => {
  const { bad, edits } = newRowsOf(plan, list, {}, Date.now(), () => randomUUID());
  if (bad.length > 0) throw new Error(`demo: ${JSON.stringify(bad[0])}`);
  return edits;
};

const controllers = (plan: Plan): readonly Edit[] =>
  rows(
    plan,
    ['Tank line', 'Sorting line', 'Feeding'].map((subnet) => ({
      ...{ title: `${subnet} controller`, kind: 'Machine controller K', subnet },
      ...{ area: subnet, cabinet: `${PARTS[subnet]?.[0]?.[3] ?? ''}`, position: '1' },
    })),
  );

const devices = (plan: Plan): readonly Edit[] =>
  rows(
    plan,
    Object.entries(PARTS).flatMap(([subnet, items]) =>
      items.flatMap(([title, kind, count, cabinet]) =>
        Array.from({ length: count }, (_, at): ListRow => ({
          ...{ title: `${title} ${at + 1}`, kind, subnet, cabinet, area: subnet },
          position: String(at + 2),
          ...(ALONE.has(title) ? {} : { controller: `${subnet} controller` }),
        })),
      ),
    ),
  );

/** One socket in every subnet, at the gateway of each. */
function router(plan: Plan): readonly Edit[] {
  const device = toDevice({
    ...{ id: randomUUID(), title: 'Hall router', name: 'hall2-router', way: 'web-page' },
    ...{ kindId: 'eskmere-router-4', area: 'Second hall', cabinet: 'NW1' },
  });
  const sockets = plan.subnets.flatMap((subnet): readonly Edit[] => {
    if (subnet.gateway === undefined) return [];
    const at = toInterface({
      ...{ id: randomUUID(), deviceId: device.id, subnetId: subnet.id, label: subnet.name },
      ...{ address: subnet.gateway, gateway: 'none' },
    });
    return [{ op: 'add', type: 'interface', thing: docOf('interface', at) }];
  });
  return [{ op: 'add', type: 'device', thing: docOf('device', device) }, ...sockets];
}

const STATION: Device['modules'] = ['16 inputs', '16 outputs', 'counter'].map((title, slot) => ({
  ...{ slot, title },
}));

const BARE: ConnectionEnd = {
  ...{ inSize: undefined, outSize: undefined, unitBits: '8', viewpoint: 'controller' },
  ...{
    headerBytes: 0,
    inInstance: 101,
    outInstance: 102,
    configInstance: 103,
    configBytes: undefined,
  },
  ...{ intervalMillis: 10, revision: '', register: undefined, counting: 'from-0' },
};

/** Each station with its modules, and the connection that they come to. */
function stations(plan: Plan, doc: PlanDoc): readonly Edit[] {
  return named(plan, 'Tank station').flatMap((device) => {
    const kind = findKind(plan, device.kindId);
    if (!kind) return [];
    const end = endWithBytes(BARE, offeredBytes({ modules: STATION }, kind));
    const connection: Connection = { protocol: 'EtherNet/IP', device: end, controller: end };
    return change(doc, device, { ...device, modules: STATION, connection });
  });
}

/** The scales behind the gateways, by their unit numbers. */
const lines = (plan: Plan, doc: PlanDoc): readonly Edit[] =>
  named(plan, 'Scale gateway').flatMap((device) =>
    change(doc, device, {
      ...device,
      lines: [1, 2].map((line) => ({
        ...{ title: `line ${line}`, settings: '19200 8E1', tcpPort: 501 + line },
        units: [1, 2, 3].map((unit) => ({ unit, title: `scale ${line}.${unit}` })),
      })),
    }),
  );

const named = (plan: Plan, title: string): readonly Device[] =>
  plan.devices.filter((device) => device.title.startsWith(`${title} `));

function change(doc: PlanDoc, { id }: Device, device: Device): readonly Edit[] {
  const thing = findDoc(doc, 'device', id);
  return thing ? changeOf('device', thing, docOf('device', device)) : [];
}

/** What the line builder's list has wrong. */
function mistakes(plan: Plan, doc: PlanDoc): readonly Edit[] {
  const addressOf = (title: string, address: string) => {
    const at = plan.devices.find((one) => one.title === title)?.interfaces[0];
    const thing = at && findDoc(doc, 'interface', at.id);
    return thing ? changeOf('interface', thing, { address }) : [];
  };
  const fieldOf = (title: string, fields: Readonly<Record<string, Json>>) => {
    const device = plan.devices.find((one) => one.title === title);
    const thing = device && findDoc(doc, 'device', device.id);
    return thing ? changeOf('device', thing, fields) : [];
  };
  const [station] = named(plan, 'Tank station');
  const words = station?.connection && {
    ...station.connection,
    controller: { ...station.connection.controller, unitBits: '16' as const },
  };
  return [
    ...addressOf('Inlet valve block 3', '10.62.0.101'),
    ...addressOf('Water flow 2', '10.26.0.151'),
    ...fieldOf('Tank panel 1', { name: 'tank panel 1', isNameTyped: true }),
    ...fieldOf('Feed pump drive 4', { way: 'bootp' }),
    ...(station && words ? change(doc, station, { ...station, connection: words }) : []),
  ];
}
