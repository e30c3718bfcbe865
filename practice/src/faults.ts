import { must, parseIpv4, toPrefixLength } from '@ipsonomo/core/net';
import type { PracticeDevice } from './device';
import type { PracticeRouter } from './router';
import type { Quirk } from './quirks';

/** What a fault is made of. */
export interface FaultySite {
  device(id: string): PracticeDevice | undefined;
  readonly routers: readonly PracticeRouter[];
  isTrunk: boolean;
  /** Pulls or plugs the cable of a device. */
  plug(id: string, on: boolean): void;
}

/** Something wrong on the practice site that can be switched on, as one would find it on a real one. */
export interface Fault {
  readonly id: string;
  readonly title: string;
  readonly set: (site: FaultySite, on: boolean, now: number) => void;
}

const plugged =
  (device: string): Fault['set'] =>
  (site, on) =>
    site.plug(device, on);

const quirk =
  (device: string, name: Quirk): Fault['set'] =>
  (site, on) => {
    const quirks = site.device(device)?.quirks;
    if (on) quirks?.add(name);
    else quirks?.delete(name);
  };

/** Of another plant. */
const OLD = { address: must(parseIpv4('10.20.0.33')), length: toPrefixLength(24) };

const RIGHT = 'sl1-block-5';
const WRONG = 'sl1-blok-5';

export const FAULTS: readonly Fault[] = [
  {
    id: 'two-fresh',
    title: 'A second fresh camera is plugged in, with the same factory address',
    set: plugged('inspection-camera-2'),
  },
  {
    id: 'lending-router',
    title: 'Somebody plugs in a router that lends addresses',
    set: plugged('router-somebody-brought'),
  },
  {
    id: 'voice-taken',
    title: 'A panel somebody left has the address Ipsonomo would speak from',
    set: plugged('panel-somebody-left'),
  },
  {
    id: 'in-use',
    title: 'A controller uses the oxygen valve block',
    set: quirk('oxygen-valve-block', 'owned'),
  },
  {
    id: 'page-locked',
    title: 'The controller of the inspection camera is connected: its page is read-only',
    set: quirk('inspection-camera', 'owned'),
  },
  {
    id: 'other-revision',
    title: 'The oxygen valve block is of another hardware revision',
    set: quirk('oxygen-valve-block', 'other-revision'),
  },
  {
    id: 'other-module',
    title: 'The second module of sorting block 2 is another than planned',
    set: quirk('sorting-block-2', 'other-module'),
  },
  {
    id: 'other-size',
    title: 'The connection of the oxygen valve block carries twice the bytes',
    set: quirk('oxygen-valve-block', 'other-size'),
  },
  {
    id: 'project-name',
    title: 'The project of the hall controller has the name of a block with one letter wrong',
    set: (site, on, now) => {
      const [from, to] = on ? [RIGHT, WRONG] : [WRONG, RIGHT];
      site.device('controller-filter-hall')?.renameStation(from, to, now);
    },
  },
  {
    id: 'name-doubled',
    title: 'Sorting block 6 has the name that is planned for block 5',
    set: (site, on) => site.device('sorting-block-6')?.rename(on ? 'sl1-block-5' : ''),
  },
  {
    id: 'name-slip',
    title: 'Sorting block 3 has its planned name in capital letters',
    set: (site, on) => {
      site.device('sorting-block-3')?.rename(on ? 'sl1-block-3' : 'press-block-4');
      quirk('sorting-block-3', 'capital-name')(site, on, 0);
    },
  },
  {
    id: 'cut-answer',
    title: 'The answers of sorting block 1 over layer 2 end in the middle',
    set: quirk('sorting-block-1', 'cut-answer'),
  },
  {
    id: 'other-transaction',
    title: 'Sorting block 2 answers under the number of another question',
    set: quirk('sorting-block-2', 'other-transaction'),
  },
  {
    id: 'cut-request',
    title: 'The requests of the oxygen valve block end in the middle',
    set: quirk('oxygen-valve-block', 'cut-request'),
  },
  {
    id: 'other-number',
    title: 'The intake pump drive chooses its address under another number than it asked under',
    set: quirk('intake-pump-drive', 'other-number'),
  },
  {
    id: 'kept-address',
    title: 'The intake pump drive was used before: it keeps an old address and does not ask',
    set: (site, on, now) => {
      const drive = site.device('intake-pump-drive');
      if (on) drive?.keepFromBefore(OLD, now);
      else drive?.setBack();
    },
  },
  {
    id: 'drops-out',
    title: 'Drum filter drive 1 drops out for three seconds every forty',
    set: quirk('drum-filter-drive-1', 'drops-out'),
  },
  {
    id: 'trunk-port',
    title: 'The laptop is in a port that carries the other network too, with a VLAN tag',
    set: (site, on) => {
      site.isTrunk = on;
    },
  },
  {
    id: 'proxy-arp',
    title: 'The router of the hall answers for every address',
    set: (site, on) => {
      for (const router of site.routers) router.answersForAll = on;
    },
  },
];
