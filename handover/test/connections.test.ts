import Papa from 'papaparse';
import * as SheetJS from 'xlsx';
import type { Connection, ConnectionEnd, Device } from '@ipsonomo/core/plan';
import { writtenPlaces } from '@ipsonomo/core/written';
import { device, HALL, ip, mac, planWith, SMALL, textOf, WIDE, written } from './samples';
import { inFile, run } from './run';
import { withProgram } from './with-program';

// What a controller's programmer types in, what has to pass from where to where, and everywhere an address is written.

const end = (fields: Partial<ConnectionEnd>): ConnectionEnd => ({
  ...{ inSize: undefined, outSize: undefined, unitBits: '8', viewpoint: 'controller' },
  ...{ headerBytes: 0, inInstance: undefined, outInstance: undefined, configInstance: undefined },
  ...{ configBytes: undefined, intervalMillis: undefined, revision: '', register: undefined },
  ...{ counting: 'from-0', ...fields },
});
const enip: Connection = {
  protocol: 'EtherNet/IP',
  // As the device's manual has it: from its own side, in words, with a header of four bytes.
  device: end({
    ...{ viewpoint: 'device', unitBits: '16', headerBytes: 4, outSize: 8, inSize: 4 },
    ...{
      outInstance: 101,
      inInstance: 102,
      configInstance: 103,
      configBytes: 12,
      intervalMillis: 20,
    },
  }),
  controller: end({ inSize: 12, outSize: 5 }),
};
const CONTROLLER = device(
  'plc',
  'makers-tool',
  { address: ip('172.22.40.10') },
  {
    ...{ title: 'Controller', kindId: 'osterhew-controller-k' },
  },
);
const of = (fields: Partial<Device>): Partial<Device> => ({ controllerId: 'plc', ...fields });
const VALVE = device(
  'valve',
  'bootp',
  { address: ip('10.20.9.4'), subnetId: 'wide' },
  of({
    ...{
      kindId: 'tarnwick-valves-16',
      protocol: 'EtherNet/IP',
      connection: enip,
      title: 'Valve; 1',
    },
  }),
);
const METER = device(
  'meter',
  'dhcp-mac',
  { address: ip('172.22.40.31') },
  of({
    ...{ kindId: 'marrowby-flow-f2', protocol: 'Modbus/TCP' },
    connection: {
      protocol: 'Modbus/TCP',
      device: end({ register: 40_108, counting: 'area-digit' }),
      controller: end({}),
    },
  }),
);
const BARE = device('bare', 'dhcp-mac', { address: ip('172.22.40.32') }, of({ kindId: 'other' }));
const PANEL = device(
  'panel',
  'keypad',
  { address: ip('10.9.7.70'), subnetId: 'small' },
  of({
    ...{ kindId: 'kilvane-panel-12', title: 'Panel', protocol: 'OPC UA' },
    references: [{ what: 'time server', deviceId: undefined, address: ip('172.22.40.1') }],
  }),
);
const ROUTER = device(
  'router',
  'web-page',
  { address: ip('172.22.40.1') },
  {
    ...{ kindId: 'eskmere-router-4', title: 'Router' },
    routes: [],
  },
);
const plan = planWith([CONTROLLER, VALVE, METER, BARE, PANEL, ROUTER], [...[HALL, SMALL, WIDE]]);

const rowsOf = (text: string) =>
  Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data;

test('R-CONNECTION-SHEET: as the controller sees it, in bytes and words, registers with their notation', async () => {
  const { text, left } = await textOf('connections-csv', plan);
  const rows = rowsOf(text);
  expect(rows.map((row) => [row['controller'], row['device']])).toEqual([
    ...[
      ['Controller', 'Valve; 1'],
      ['Controller', 'Device meter'],
      ['Controller', 'Device bare'],
      ['Controller', 'Panel'],
    ],
  ]);
  expect(rows[0]).toMatchObject({
    ...{ address: '10.20.9.4', protocol: 'EtherNet/IP', revision: '2.1' },
    ...{ 'instance in': '101', 'instance out': '102', 'instance configuration': '103' },
    // Eight words less a header of four bytes, four words less the same.
    ...{ 'in, bytes': '12', 'in, words': '6', 'out, bytes': '4', 'out, words': '2' },
    ...{ 'configuration, bytes': '12', 'interval, ms': '20' },
  });
  expect(rows[1]?.['register']).toBe('40108 (with an area digit; on the wire 107)');
  expect(left.map(({ title, reason }) => `${title} ${reason}`)).toEqual([
    ...['Device bare no-connection', 'Panel no-connection'],
  ]);
});

test('R-CONNECTION-SHEET: a sheet a controller, the same lines', async () => {
  const { files } = await written('connections-xlsx', plan);
  const book = SheetJS.read(files[0]?.content as Uint8Array);
  expect(book.SheetNames).toEqual(['Controller']);
  const rows = SheetJS.utils.sheet_to_json<Record<string, unknown>>(
    book.Sheets['Controller'] as SheetJS.WorkSheet,
  );
  expect(rows.map((row) => row['device'])).toEqual([
    ...['Valve; 1', 'Device meter', 'Device bare', 'Panel'],
  ]);
});

withProgram('pdftotext', '-v')(
  'R-CONNECTION-SHEET: on paper, every value with its name',
  async () => {
    const { files } = await written('connections-pdf', plan);
    const text = run('pdftotext', '-layout', inFile(files[0]?.content as Uint8Array), '-').out;
    const flat = text.replace(/\s+/g, ' ');
    for (const words of [
      'Controller',
      'Valve; 1',
      'in, bytes 12',
      'in, words 6',
      'interval, ms 20',
    ])
      expect(flat).toContain(words);
  },
);

test('R-PORTS, R-NEEDS-OUT: the ports of the protocols, there and back; a kind that says no service is told', async () => {
  const { text, left } = await textOf('firewall', plan);
  const needs = rowsOf(text).map((row) =>
    [row['source'], row['target'], row['protocol'], row['port'], row['where']].join(' | '),
  );
  expect(needs).toEqual(
    expect.arrayContaining([
      'Controller | Valve; 1 | tcp | 44818 | ',
      'Controller | Valve; 1 | udp | 2222 | ',
      'Valve; 1 | Controller | udp | 2222 | ',
      'Controller | Device meter | tcp | 502 | within one subnet',
      // A panel opens its connection itself.
      'Panel | Controller | tcp | 4840 | ',
      'Panel | Router | tcp | 80 | ',
    ]),
  );
  expect(left.map(({ title, reason }) => `${title} ${reason}`)).toEqual(['Device bare no-service']);
});

withProgram('nft', '--version')(
  'R-NFTABLES: nft takes the rules, whatever the titles are',
  async () => {
    const odd = planWith(
      plan.devices.map((one) => ({ ...one, title: `${one.title} "x\\ ${'é'.repeat(80)}\n;` })),
      plan.subnets,
    );
    for (const one of [plan, odd]) {
      const { text } = await textOf('nftables', one);
      expect(text).not.toMatch(/172\.22\.40\.31.*dport 502/);
      const { status, out } = run('unshare', '-rn', 'nft', '-c', '-f', inFile(text));
      if (/unshare/.test(out)) return; // no right to make a namespace here
      expect([status, status === 0 ? '' : out]).toEqual([0, '']);
    }
  },
);

test('R-WRITTEN: everywhere that an address stands', () => {
  const placesOf = (one: Device) => {
    const [at] = one.interfaces;
    if (!at) throw new Error('no interface');
    return writtenPlaces(plan, { device: one, at }).map(
      ({ kind, holder, value }) => `${kind} | ${holder} | ${value}`,
    );
  };
  expect(placesOf(VALVE)).toEqual([
    'project | Controller | 10.20.9.4',
    'reservation | Yard | 10.20.9.4',
    'firewall |  | 10.20.9.4',
    'dns | hall.example | fh-valve 10.20.9.4',
    'hosts |  | 10.20.9.4 fh-valve',
    'monitoring |  | 10.20.9.4',
    'label |  | fh-valve 10.20.9.4',
  ]);
  expect(placesOf(CONTROLLER)).toEqual(
    expect.arrayContaining(['panel | Panel | 172.22.40.10', 'firewall |  | 172.22.40.10']),
  );
  expect(placesOf(ROUTER)).toEqual(
    expect.arrayContaining([
      'named | Panel: time server | 172.22.40.1',
      'gateway | Hall\nline | 172.22.40.1',
    ]),
  );
});

test('R-WRITTEN: a place is ticked for the value that stood there, and not for another', async () => {
  const [at] = VALVE.interfaces;
  const ticks = (value: string) =>
    new Map([[`${at?.id} monitoring ${value}`, { person: 'Mara Quist', at: 0 }]]);
  const ticked = async (value: string) =>
    rowsOf((await textOf('written-places', plan, { ticks: ticks(value) })).text)
      .filter((row) => row['ticked by'] !== '')
      .map((row) => [row['device'], row['where'], row['ticked by']]);
  expect(await ticked('10.20.9.4')).toEqual([['Valve; 1', 'monitoring', 'Mara Quist']]);
  expect(await ticked('10.20.9.5')).toEqual([]);
});

test('R-SIDES: the programmer’s list of corrections, and the names', async () => {
  const entered: Device['entered'] = {
    ...{ name: '', address: ip('10.20.9.40'), revision: '' },
    ...{ mask: undefined, gateway: undefined },
  };
  const other = planWith([CONTROLLER, { ...VALVE, entered }], plan.subnets);
  const rows = rowsOf((await textOf('corrections', other)).text);
  expect(rows[0]).toEqual({
    ...{ controller: 'Controller', device: 'Valve; 1', value: 'address' },
    ...{ 'stands there': '10.20.9.40', 'has to become': '10.20.9.4' },
  });
  const bound = planWith(
    [device('m', 'dhcp-mac', { address: ip('172.22.40.3'), mac: mac('02:00:5e:00:53:07') })],
    [HALL],
  );
  expect(rowsOf((await textOf('names', bound)).text)).toMatchObject([
    { address: '172.22.40.3', MAC: '02:00:5e:00:53:07', 'station name': 'fh-m' },
  ]);
});
