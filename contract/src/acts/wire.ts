import type { CabinetAction, WireChoice } from '@ipsonomo/core/api';
import { answers, does, reads } from '../act';
import { keys } from '../keys';
import { choice, either, flag, list, matching, number, object, text, uuid, whole } from '../shape';
import type { Shape } from '../shape';

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

/** The wire itself: which it is, who listens, who may send. Nothing here is of one job alone. */
export const wireActs = {
  readField: reads('/field', 'Field', { about: 'How the wire stands.' }),
  listHeard: reads('/field/heard', 'Heard', { about: 'Who asks on it, and for what.' }),
  listStations: reads('/field/stations', 'Stations', { about: 'Stations found over layer 2.' }),
  listPresent: reads('/field/present', 'Present', {
    about: 'Everybody seen with an address since it is listened to.',
  }),
  listAdapters: reads('/field/adapters', 'Adapters', {
    ...{ about: 'The adapters of this machine.', key: () => keys.adapters },
  }),
  chooseWire: answers('/field/wire', 'Field', {
    about: 'Chooses the wire: an adapter, or the practice site.',
    ...{ right: 'keep', body: wireChoice, refusals: WIRE },
  }),
  readNotice: answers('/field/notices/read', 'Field', {
    about: 'A person has read a notice.',
    ...{ right: 'look', body: object({ code: text(40), at: number() }), refusals: WIRE },
  }),
  listen: answers('/field/listen', 'Field', {
    about: 'Listens for a job; the wire is given to it.',
    ...{ right: 'assign', body: object({ jobId: uuid }), refusals: WIRE },
  }),
  rest: answers('/field/rest', 'Field', {
    ...{ about: 'Listens no more.', right: 'assign', refusals: WIRE },
  }),
  arm: answers('/field/arm', 'Field', {
    about: 'Answers bound devices for so many minutes.',
    ...{ right: 'send', body: object({ minutes: number(1, 60) }), refusals: WIRE },
  }),
  here: does('/field/here', {
    ...{ about: 'Whoever let it answer is still here to see it.', right: 'look' },
  }),
  silence: answers('/field/silence', 'Field', {
    // Whoever sees that something is wrong may end it.
    ...{ about: 'Falls silent at once.', right: 'look', refusals: WIRE },
  }),
  readCabinet: reads('/practice/cabinet', 'Cabinet', {
    ...{ about: 'The cabinets of the practice site.', key: () => keys.cabinet },
  }),
  actAtCabinet: answers('/practice/cabinet', 'Cabinet', {
    about: 'What somebody does there.',
    ...{ right: 'assign', body: object({ action: cabinetAction }) },
    refusals: ['switches', 'ipv4'],
  }),
} as const;
