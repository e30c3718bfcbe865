import type { HostAddress } from '@ipsonomo/core/host';
import { must, parseIpv4, parseMac, parsePrefix, toPrefixLength } from '@ipsonomo/core/net';
import { findShelfKind, type Kind } from '@ipsonomo/core/plan';
import type { DeviceDefinition } from './definition';
import { FAULTS } from './faults';
import type { RouterDefinition } from './router';
import type { SiteDefinition } from './site';

// The devices of the "Tern Cove hatchery" as they stand in its cabinets. A few things are wrong on
// purpose; each is named where it stands. All of it is invented.

const HALL = 'filter-hall';
const FEED = 'feeding';
const RACK = 'grader-rack';

const kind = (id: string): Kind => {
  const found = findShelfKind(id);
  if (!found) throw new Error(`no kind ${id}`);
  return found;
};

const at = (address: string, gateway?: string): HostAddress => ({
  address: must(parseIpv4(address)),
  length: toPrefixLength(24),
  ...(gateway === undefined ? {} : { gateway: must(parseIpv4(gateway)) }),
});

type Extras = Partial<
  Omit<DeviceDefinition, 'id' | 'title' | 'kind' | 'place' | 'segment' | 'mac'>
>;

/** A line of the table below. */
type Line = readonly [
  segment: string,
  title: string,
  kindId: string,
  place: string,
  mac: string,
  extras?: Extras,
];

function device(...[segment, title, kindId, place, mac, extras = {}]: Line): DeviceDefinition {
  return {
    id: title.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
    title,
    kind: kind(kindId),
    place,
    segment,
    mac: must(parseMac(mac)),
    label: mac.toUpperCase().replaceAll(':', '-'),
    ...extras,
  };
}

/** Status in, coils out, and a configuration without data. */
const VALVES: Extras = {
  assemblies: [
    { instance: 101, bytes: 2 },
    { instance: 102, bytes: 2, isUnmeasured: true },
    { instance: 103, bytes: 0 },
  ],
};

const HALL_CONTROLLER = must(parseMac('02:4c:7a:10:00:01'));

const devices: readonly DeviceDefinition[] = [
  device(HALL, 'Controller, filter hall', 'osterhew-controller-k', 'FH1 / 1', '02:4c:7a:10:00:01', {
    stored: at('172.22.40.10', '172.22.40.1'),
    project: [
      { name: 'sl1-block-5', at: at('172.22.40.115') },
      { name: 'sl1-block-6', at: at('172.22.40.116') },
    ],
  }),
  device(HALL, 'Drum filter drive 1', 'dunvarrick-drive-m', 'FH2 / 2', '02:4c:7a:1d:80:11'),
  // Wrong sticker: its last byte reads D3 where the device has 03.
  device(HALL, 'Drum filter drive 2', 'dunvarrick-drive-m', 'FH2 / 3', '02:4c:7a:1d:80:03', {
    label: '02-4C-7A-1D-80-D3',
  }),
  // Unplugged: nobody hears it until its cable is in.
  device(HALL, 'Backwash drive', 'dunvarrick-drive-m', 'FH2 / 6', '02:4c:7a:1d:80:2e', {
    unplugged: true,
  }),
  device(HALL, 'Oxygen valve block', 'tarnwick-valves-16', 'OX1 / 1', '02:4c:7a:40:51:62', VALVES),
  device(HALL, 'Sludge valve block', 'tarnwick-valves-16', 'FH3 / 1', '02:4c:7a:40:51:7b', VALVES),
  device(HALL, 'Filter hall station', 'quillfen-station-8', 'FH2 / 1', '02:4c:7a:33:0c:15'),
  device(HALL, 'Intake pump drive', 'belloch-drive-d4', 'IN1 / 2', '02:4c:7a:22:05:9e', {
    hostName: 'in1-drive-1',
  }),
  device(HALL, 'Intake flow meter', 'marrowby-flow-f2', 'IN1 / 4', '02:4c:7a:61:7f:08', {
    hostName: 'flow-f2',
  }),
  device(HALL, 'Inspection camera', 'fennrick-camera-c1', 'SL1 / 5', '02:4c:7a:90:3a:c4'),
  // It left its maker with the address of the first one: two of them on the wire are one too many.
  device(HALL, 'Inspection camera 2', 'fennrick-camera-c1', 'SL1 / 8', '02:4c:7a:90:3a:d1', {
    unplugged: true,
  }),
  device(HALL, 'Sorting block 1', 'eldrup-block-8', 'SL1 / 1', '02:4c:7a:71:00:21'),
  device(HALL, 'Sorting block 2', 'eldrup-block-8', 'SL1 / 2', '02:4c:7a:71:00:22'),
  // Used before: another line's name and address are still in it.
  device(HALL, 'Sorting block 3', 'eldrup-block-8', 'SL1 / 3', '02:4c:7a:71:00:27', {
    stationName: 'press-block-4',
    stored: at('10.20.0.15'),
  }),
  // Run by a controller that is not told of in the plan.
  device(HALL, 'Sorting block 4', 'eldrup-block-8', 'SL1 / 4', '02:4c:7a:71:00:2a', {
    ...{ stationName: 'crowder-block-2', stored: at('172.22.40.208'), owned: true },
  }),
  device(HALL, 'Sorting block 5', 'eldrup-block-8', 'SL1 / 6', '02:4c:7a:71:00:31', {
    runBy: HALL_CONTROLLER,
  }),
  device(HALL, 'Sorting block 6', 'eldrup-block-8', 'SL1 / 7', '02:4c:7a:71:00:36', {
    runBy: HALL_CONTROLLER,
  }),
  device(HALL, 'Grader station 1', 'wendle-station-20', 'SL2 / 1', '02:4c:7a:55:0a:31', {
    network: must(parsePrefix('172.22.40.0/24')),
  }),
  // Its dials choose the last number in another network than the plan's.
  device(HALL, 'Grader station 2', 'wendle-station-20', 'SL2 / 2', '02:4c:7a:55:0a:38'),
  device(HALL, 'Grader terminal 1', 'strathan-terminal-4', 'SL2 / 3', '02:4c:7a:66:14:02'),
  device(HALL, 'Grader terminal 2', 'strathan-terminal-4', 'SL2 / 4', '02:4c:7a:66:14:0b'),
  device(HALL, 'Fry scale 1', 'marrowby-weigher-w3', 'LB1 / 1', '02:4c:7a:61:81:04', {
    hostName: 'scale-a',
  }),
  device(HALL, 'Fry scale 2', 'marrowby-weigher-w3', 'LB1 / 2', '02:4c:7a:61:81:0e', {
    hostName: 'scale-b',
  }),
  device(HALL, 'Laboratory switch', 'eskmere-switch-8', 'LB1 / 3', '02:4c:7a:0e:21:40'),
  // Not in the plan, and at the address the plan has for the sludge valve block.
  device(HALL, 'Old lift controller', 'osterhew-controller-k', 'FH3 / 9', '02:4c:7a:10:00:77', {
    stored: at('172.22.40.101'),
  }),
  // A rack with a network of its own behind the module in slot 3; not in the plan until somebody adds it.
  device(HALL, 'Grader rack', 'osterhew-controller-r', 'SL3 / 1', '02:4c:7a:10:0a:01', {
    ...{ stored: at('172.22.40.14', '172.22.40.1'), unplugged: true },
    rack: [
      { slot: 1, title: 'network module', network: { segment: HALL, at: at('172.22.40.14') } },
      { slot: 2, title: '32 inputs' },
      { slot: 3, title: 'network module', network: { segment: RACK, at: at('192.168.90.1') } },
    ],
  }),
  device(RACK, 'Grader gate valves', 'tarnwick-valves-16', 'SL3 / 2', '02:4c:7a:40:52:10', {
    stored: at('192.168.90.21'),
  }),
  device(RACK, 'Grader belt drive', 'dunvarrick-drive-m', 'SL3 / 3', '02:4c:7a:1d:81:06', {
    stored: at('192.168.90.22'),
  }),
  // Two scales on its line, one of them silent; not in the plan until somebody adds it.
  device(HALL, 'Scale gateway', 'corrigall-gateway-2', 'LB1 / 4', '02:4c:7a:52:00:14', {
    ...{ stored: at('172.22.40.51', '172.22.40.1'), unplugged: true },
    line: [
      { unit: 1, registers: [0, 1, 4180, 2] },
      { unit: 2, registers: [], isSilent: true },
    ],
  }),
  // Left by somebody, at the address Ipsonomo would speak from first.
  device(HALL, 'Panel somebody left', 'kilvane-panel-12', 'floor', '02:4c:7a:12:00:09', {
    ...{ stored: at('172.22.40.253'), unplugged: true },
  }),
  // Brought by somebody for their phone: once its cable is in, it lends addresses to everybody.
  device(HALL, 'Router somebody brought', 'eskmere-router-4', 'floor', '02:4c:7a:0e:77:01', {
    ...{ stored: at('172.22.40.215'), unplugged: true },
    lends: { first: must(parseIpv4('172.22.40.216')), count: 8 },
  }),
  // A stranger that asks by DHCP.
  device(HALL, 'Winch of a visiting crew', 'belloch-drive-d4', 'floor', '02:4c:7a:22:05:b0', {
    hostName: 'winch-b',
    vendorClass: 'hoist 7',
  }),
  device(FEED, 'Feeding robot drive', 'belloch-drive-d4', 'FD1 / 2', '02:4c:7a:22:06:11', {
    hostName: 'fd1-drive-1',
  }),
  // Owned by a controller that is not told of in the plan: it refuses to be changed.
  device(FEED, 'Feeding valve block', 'tarnwick-valves-16', 'FD1 / 3', '02:4c:7a:40:51:90', {
    ...VALVES,
    owned: true,
  }),
  device(FEED, 'Feeding station', 'quillfen-station-8', 'FD1 / 1', '02:4c:7a:33:0c:42'),
  // Two weighing heads with one MAC: neither may be answered.
  device(FEED, 'Weighing head', 'marrowby-weigher-w3', 'FD2 / 1', '02:4c:7a:61:80:20', {
    hostName: 'weigh-left',
  }),
  device(FEED, 'Weighing head, spare', 'marrowby-weigher-w3', 'FD2 / 2', '02:4c:7a:61:80:20', {
    hostName: 'weigh-right',
  }),
];

const router: RouterDefinition = {
  id: 'router',
  title: 'Router, hall cabinet',
  interfaces: [
    { segment: HALL, mac: must(parseMac('02:4c:7a:01:00:01')), at: at('172.22.40.1') },
    { segment: FEED, mac: must(parseMac('02:4c:7a:01:00:02')), at: at('172.22.41.1') },
  ],
};

export const TERN_COVE: SiteDefinition = {
  segments: [
    {
      ...{ id: HALL, title: 'Filter hall switch', name: 'fh1-switch-1', port: 'port 8' },
      ...{ mac: must(parseMac('02:4c:7a:0a:01:01')), vlan: 40 },
    },
    {
      ...{ id: FEED, title: 'Feeding switch', name: 'fd1-switch-1', port: 'port 4' },
      ...{ mac: must(parseMac('02:4c:7a:0a:02:01')), vlan: 41 },
    },
    {
      ...{ id: RACK, title: 'Switch behind the grader rack', name: 'sl3-switch-1', port: 'port 2' },
      ...{ mac: must(parseMac('02:4c:7a:0a:03:01')), vlan: 90 },
    },
  ],
  devices,
  routers: [router],
  faults: FAULTS,
};
