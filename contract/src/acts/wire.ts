import type { CabinetAction, WireChoice } from '@ipsonomo/core/api';
import { answers, does, reads } from '../act';
import { keys } from '../keys';
import {
  choice,
  either,
  flag,
  list,
  matching,
  number,
  object,
  said,
  type Shape,
  text,
  whole,
} from '../shape';

// IFNAMSIZ of Linux is 16 with the closing zero.
const adapter = matching('^[^/\\s]+$', 15, 'the name of an adapter');
const wireChoice: Shape<WireChoice> = either(
  object({ kind: choice('practice') }, { evenSo: flag }),
  object({ kind: choice('live'), adapter }, { evenSo: flag }),
);

const device = text(80);
const cabinetAction: Shape<CabinetAction> = either(
  object({ kind: choice('power', 'cable'), device, on: flag }),
  object({ kind: choice('power-all'), on: flag }),
  object({ kind: choice('own-step', 'set-back'), device }),
  object({ kind: choice('turn'), device, positions: list(whole(0, 35), 64) }),
  object({ kind: choice('type'), device, address: text(40) }),
  object({ kind: choice('fault'), fault: text(80), on: flag }),
  object({ kind: choice('socket'), segment: text(80) }),
  object({ kind: choice('reset') }),
) as Shape<CabinetAction>;

const WIRE = ['wire', 'field'] as const;
const at = '/jobs/:job/wire';

/** Wires: each job has one of its own. Which it is, who listens, who may send. */
export const wireActs = {
  readField: reads(at, 'Field', {
    ...{ about: 'How the wire of a job stands.', key: ({ job }) => keys.field(job) },
  }),
  listHeard: reads(`${at}/heard`, 'Heard', { about: 'Who asks on it, and for what.' }),
  listStations: reads(`${at}/stations`, 'Stations', { about: 'Stations found over layer 2.' }),
  listPresent: reads(`${at}/present`, 'Present', {
    about: 'Everybody seen with an address since it is listened to.',
  }),
  listAdapters: reads('/adapters', 'Adapters', {
    ...{ about: 'The adapters of this machine.', key: () => keys.adapters },
  }),
  listWires: reads('/wires', 'Wires', {
    ...{ about: 'All wires that are open, each with its job.', key: () => keys.wires },
  }),
  chooseWire: answers(at, 'Field', {
    about:
      'Chooses the wire of a job: a practice site of its own, or an adapter, which only a keeper may, or whoever was let send on it.',
    ...{ right: 'assign', body: wireChoice, refusals: [...WIRE, 'rehearsal'] },
  }),
  readNotice: answers(`${at}/notices/read`, 'Field', {
    about: 'A person has read a notice.',
    ...{ right: 'look', body: object({ code: text(40), at: number() }), refusals: WIRE },
  }),
  listen: answers(`${at}/listen`, 'Field', {
    ...{ about: 'Listens for the job.', right: 'assign', refusals: WIRE },
  }),
  rest: answers(`${at}/rest`, 'Field', {
    ...{ about: 'Listens no more.', right: 'assign', refusals: WIRE },
  }),
  arm: answers(`${at}/arm`, 'Field', {
    about: 'Answers bound devices for so many minutes.',
    ...{ right: 'send', body: object({ minutes: number(1, 60) }), refusals: WIRE },
  }),
  here: does('/here', {
    ...{ about: 'Whoever let a wire answer is still here to see it.', right: 'look' },
  }),
  // Whoever sees that something is wrong may end it.
  silence: answers(`${at}/silence`, 'Field', {
    ...{ about: 'Falls silent at once on the wire of a job.', right: 'look', refusals: WIRE },
  }),
  silenceAll: does('/silence', {
    ...{ about: 'Falls silent at once on every wire.', right: 'look', stale: () => [keys.wires] },
  }),
  listServers: reads('/servers', 'Servers', {
    about: 'The servers that work with this database, each with its wires.',
    key: () => keys.servers,
  }),
  nameServer: answers('/servers/own', 'Servers', {
    about: 'What the others call this server: where it stands.',
    ...{ right: 'keep', body: object({ name: said(60) }), refusals: ['name'] },
    stale: () => [keys.servers],
  }),
  silenceEverywhere: answers('/silence/everywhere', 'Silenced', {
    about:
      'Falls silent on every wire of every server; tells which of them answered that they did.',
    ...{ right: 'keep', stale: () => [keys.wires] },
  }),
  readCabinet: reads('/jobs/:job/practice/cabinet', 'Cabinet', {
    about: 'The cabinets of the practice site of a job.',
    ...{ key: ({ job }) => keys.cabinet(job), refusals: ['wire.tooMany'] },
  }),
  actAtCabinet: answers('/jobs/:job/practice/cabinet', 'Cabinet', {
    about: 'What somebody does there.',
    ...{ right: 'assign', body: object({ action: cabinetAction }) },
    refusals: ['switches', 'ipv4', 'wire.tooMany'],
  }),
} as const;
