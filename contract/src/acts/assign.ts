import type {
  Noted,
  Binding,
  GoingOn,
  ReadOff,
  SaidWritten,
  TakingCall,
  RegisterWish,
  SetBack,
  StationGiving,
  StationReset,
} from '@ipsonomo/core/api';
import { answers, does, ends, reads, fetches } from '../act';
import { keys } from '../keys';
import { choice, list, number, object, said, text, thingId, whole, type Shape } from '../shape';
import { ofJob } from './jobs';

const reason = said(300);
const evenSo = said(300);

const binding: Shape<Binding> = object({ mac: text(40), label: text(80) }, { reason: text(300) });
const bindingAndMinutes: Shape<Binding & { readonly minutes: number }> = object(
  { mac: text(40), label: text(80), minutes: number(1, 60) },
  { reason: text(300) },
);
const goingOn: Shape<GoingOn> = object({}, { evenSo });
const setBack: Shape<SetBack> = object({ reason });
const reset: Shape<StationReset> = object({ reason }, { evenSo });
const giving: Shape<StationGiving> = object(
  { give: choice('name', 'temporary', 'stored') },
  { evenSo },
);
const readOff: Shape<ReadOff> = object({ from: choice('display', 'page'), text: text(20_000) });
const register: Shape<RegisterWish> = object({
  unit: whole(0, 255),
  written: text(10),
  counting: choice('from-0', 'from-1', 'area-digit'),
});

const written: Shape<SaidWritten> = object({
  ...{ place: text(200), whose: text(300), value: text(600), is: choice('yes', 'no') },
});

// Base64 of a photo of 1.5 MB.
const noted: Shape<Noted> = object({ text: text(2000) }, { photo: text(2_100_000) });

const takingCall: Shape<TakingCall> = object({}, { word: said(200) });

const at = '/jobs/:job/interfaces/:interface';

/** What a person says of a device. */
const saying = { right: 'assign', stale: ofJob } as const;
/** The same, where it needs no wire: it may be said in a shaft and sent later. */
const noting = { ...saying, mayWait: true } as const;
/** What makes a frame leave. */
const sending = { right: 'send', stale: ofJob } as const;
/** Any frame needs a wire that listens to this job, and an address to speak from. */
const WIRE = ['wire', 'field'] as const;

/** A device and its address: bound, given, told to keep it, looked at. */
export const assignActs = {
  readEvidence: reads(`${at}/evidence`, 'Evidence', {
    about: 'Everything that was seen of an interface, the newest first.',
    key: (params) => keys.evidence(params.job, params.interface),
  }),
  listTakenCalls: reads('/jobs/:job/taken-calls', 'TakenCalls', {
    about: 'Who is at which device.',
    key: ({ job }) => keys.takenCalls(job),
  }),
  takeCall: does(`${at}/taken`, {
    about:
      'Says that whoever asks is at the device, for a quarter of an hour after the last act there; with a word, also where somebody else is.',
    right: 'assign',
    body: takingCall,
    refusals: ['call'],
    stale: ({ job }) => [keys.takenCalls(job)],
  }),
  leaveCall: ends(`${at}/taken`, {
    ...{ about: 'Says that they are at it no longer.', right: 'assign' },
    stale: ({ job }) => [keys.takenCalls(job)],
  }),
  bind: does(`${at}/bind`, {
    about: 'Binds a MAC to an interface, with what was read off its label.',
    ...{ ...noting, body: binding },
    refusals: ['mac', 'label', 'edit'],
  }),
  bindAndAnswer: answers(`${at}/bind-and-answer`, 'Field', {
    about: 'Binds a MAC, and answers bound devices for so many minutes.',
    ...{ ...sending, body: bindingAndMinutes, refusals: [...WIRE, 'mac', 'label', 'edit'] },
  }),
  unbind: does(`${at}/unbind`, {
    about: 'Takes the MAC off again.',
    ...noting,
    refusals: ['edit'],
  }),
  sayKept: does(`${at}/said-kept`, {
    ...{ about: 'A person says that the device was told to keep its address.', ...noting },
  }),
  sayGiven: does(`${at}/said-given`, {
    ...{ about: 'A person says that the device was given its address by hand.', ...noting },
  }),
  saySetBack: does(`${at}/said-set-back`, {
    ...{ about: 'A person says that the device was set back.', ...noting, body: setBack },
  }),
  sayOneDevice: does(`${at}/said-one-device`, {
    about: 'A person says that one device alone has this MAC.',
    ...{ ...saying, body: setBack, refusals: ['wire', 'field'] },
  }),
  sayWritten: does(`${at}/said-written`, {
    about:
      'A person says that a place where its address or name is written has what it should, or takes that back.',
    ...{ ...noting, body: written },
  }),
  note: does(`${at}/said-note`, {
    about: 'Keeps what a person notes of a device, with a photo in base64 (JPEG, PNG).',
    ...{ ...noting, body: noted, most: '3mb', refusals: ['note', 'photo'] },
  }),
  fetchPhoto: fetches('/jobs/:job/photos/:photo', '*/*', {
    ...{ about: 'A photo that was kept.', refusals: ['photo'] },
  }),
  readOff: does(`${at}/read-off`, {
    about: 'Keeps what a person read off the display or the page of a device.',
    ...{ ...noting, body: readOff, refusals: ['read'] },
  }),
  follow: does(`${at}/follow`, {
    ...{ about: 'Follows a device that is given its address by hand.', ...sending },
    refusals: WIRE,
  }),
  pin: does(`${at}/pin`, {
    about: 'Tells a device to keep its address.',
    ...{ ...sending, body: goingOn, refusals: [...WIRE, 'pin', 'talk', 'device'] },
  }),
  watchPower: does(`${at}/watch-power`, {
    about: 'Watches a device while its power is switched off and on.',
    ...{ ...sending, body: goingOn, refusals: [...WIRE, 'device'] },
  }),
  walk: does(`${at}/walk`, {
    about: 'Walks to a device from an address in a subnet.',
    ...{ ...sending, status: 202 },
    body: object({ subnetId: text(80) }),
    refusals: [...WIRE, 'walk'],
  }),
  readRegister: does(`${at}/read-register`, {
    about: 'Reads one register; nothing is written.',
    ...{ ...sending, body: register, refusals: [...WIRE, 'register', 'entered', 'talk', 'device'] },
  }),
  askPath: does(`${at}/ask-path`, {
    about: 'Asks along a route path who is at its end.',
    ...{ ...sending, body: object({ from: text(80) }), refusals: [...WIRE, 'path', 'talk'] },
  }),
  openPage: answers(`${at}/page`, 'OpenedAt', {
    about: 'Opens the web page of a device for one browser.',
    ...{ ...sending, refusals: [...WIRE, 'page'] },
  }),
  closePage: ends('/jobs/:job/page', {
    ...{ about: 'Closes the page that is open.', right: 'send', refusals: WIRE, stale: ofJob },
  }),
  drill: does('/jobs/:job/drill', {
    about: 'A cold start that is watched: about to be switched off, on again, over.',
    ...{ ...sending, body: object({ step: choice('begin', 'on', 'end') }), refusals: WIRE },
  }),
  sweep: does('/jobs/:job/sweep', {
    ...{ about: 'Asks for every address of the planned subnets.', ...sending },
    refusals: [...WIRE, 'sweep'],
  }),
  searchStations: does('/jobs/:job/stations/search', {
    ...{ about: 'Looks for stations over layer 2.', ...sending, refusals: [...WIRE, 'station'] },
  }),
  flash: does('/jobs/:job/stations/:mac/flash', {
    ...{ about: 'Has the lamp of a station flash.', ...sending },
    refusals: [...WIRE, 'station', 'mac'],
  }),
  giveStation: does(`${at}/station`, {
    about: 'Gives a station its name, or its address with it: for now, or to stay.',
    ...{ ...sending, body: giving, refusals: [...WIRE, 'station', 'device'] },
  }),
  resetStation: does(`${at}/station/reset`, {
    about: 'Sets a station back to how it left its maker.',
    ...{ ...sending, body: reset, refusals: [...WIRE, 'station', 'device'] },
  }),
  check: does('/jobs/:job/check', {
    about: 'Asks whether devices are found as planned.',
    ...{ ...sending, status: 202 },
    body: object({ interfaceIds: list(thingId, 1000, 1) }),
    refusals: WIRE,
  }),
} as const;
