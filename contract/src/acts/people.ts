import { ROLES, type Role } from '@ipsonomo/core/api';
import { answers, does, ends, reads } from '../act';
import { keys } from '../keys';
import { choice, object, said, text, uuid, whole, type Shape } from '../shape';

const role: Shape<Role> = choice(...ROLES);
/** Longer than any that is taken: what is too long is told by its own refusal. */
const password = text(1000);
const REFUSED = ['people', 'person'] as const;
const ofPeople = () => [keys.people, keys.browsers];
const ofMe = () => [keys.me];
const ofAll = () => [...ofMe(), ...ofPeople()];

/** Accounts of people and programs, and what each may do. */
export const peopleActs = {
  readMe: reads('/me', 'Me', { about: 'Whoever asks, and what they may do.', key: () => keys.me }),
  changeMe: answers('/me', 'Me', {
    about: 'Gives oneself another name.',
    ...{ right: 'look', body: object({ name: said(80) }), refusals: REFUSED, stale: ofAll },
  }),
  setPassword: answers('/me/password', 'Me', {
    about:
      'Gives oneself a password; the one until now is needed where there is one. Other browsers are signed out.',
    ...{ right: 'look', body: object({ password }, { old: password }), refusals: REFUSED },
    stale: ofMe,
  }),
  signOut: does('/me/sign-out', {
    about: 'Signs this browser out, or all of one’s own.',
    ...{ right: 'look', body: object({ from: choice('here', 'everywhere') }) },
  }),
  listPeople: reads('/people', 'People', {
    ...{ about: 'All accounts.', right: 'keep', key: () => keys.people },
  }),
  changePerson: answers('/people/:account', 'People', {
    about: 'Lets somebody do more, or less.',
    ...{ right: 'keep', body: object({ role }), refusals: REFUSED, stale: ofPeople },
  }),
  endPerson: ends('/people/:account', {
    about: 'Takes an account away, with its browsers and tokens; what it did stays.',
    ...{ right: 'keep', refusals: REFUSED, stale: ofPeople },
  }),
  letSend: answers('/jobs/:job/wire/send', 'People', {
    about: 'Lets somebody send on the wire of a job for so many hours.',
    ...{ right: 'keep', body: object({ account: uuid, hours: whole(1, 168) }) },
    ...{ refusals: [...REFUSED, 'field', 'wire'], stale: ofPeople },
  }),
  endSending: answers('/jobs/:job/wire/send/end', 'People', {
    about: 'Lets somebody send on it no longer.',
    ...{ right: 'keep', body: object({ account: uuid }), stale: ofPeople },
  }),
  addProgram: answers('/programs', 'NewProgram', {
    about: 'Makes a token for a program; it is told this once.',
    ...{ right: 'keep', status: 201, body: object({ name: said(80), role, days: whole(1, 730) }) },
    ...{ refusals: [...REFUSED, 'door'], stale: ofPeople },
  }),
} as const;
