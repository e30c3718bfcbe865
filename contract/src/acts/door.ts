import { answers, does, ends, fetches, reads } from '../act';
import { keys } from '../keys';
import { ROLES } from '@ipsonomo/core/api';
import { choice, object, text, uuid } from '../shape';

const ofBrowsers = () => [keys.browsers];

/** What answers those who were not let in. */
export const doorActs = {
  readDoor: reads('/door', 'Door', {
    ...{ about: 'Whether whoever asks is let in.', right: 'door', key: () => keys.door },
    refusals: ['door'],
  }),
  enter: does('/door', {
    about:
      'Lets a browser in by a key; answers with its cookie. Whoever is new may say a name and a password.',
    ...{
      right: 'door',
      body: object({ key: text(80) }, { name: text(200), password: text(1000) }),
    },
    refusals: ['door', 'people'],
  }),
  signIn: does('/door/sign-in', {
    about: 'Lets a browser in by name and password; answers with its cookie.',
    ...{ right: 'door', body: object({ name: text(200), password: text(1000) }) },
    refusals: ['door', 'people'],
  }),
} as const;

/** Who was let in, and how the server is. */
export const houseActs = {
  listKeys: reads('/keys', 'Keys', {
    about: 'Browsers that are let in, and keys that wait.',
    ...{ right: 'keep', key: () => keys.browsers },
  }),
  addKey: answers('/keys', 'NewKey', {
    about: 'Makes a key: for an account that is there, or for a new one with this role.',
    ...{ right: 'keep', status: 201, stale: ofBrowsers, refusals: ['door'] },
    body: object({}, { role: choice(...ROLES), account: uuid }),
  }),
  takeKeyBack: ends('/keys/:key', {
    ...{ about: 'Takes back a key, or shuts a browser out.', right: 'keep', stale: ofBrowsers },
  }),
  readAuthority: reads('/authority', 'Authority', {
    about: 'The authority that a phone is to trust, so that it opens the application encrypted.',
    key: () => keys.authority,
  }),
  fetchAuthority: fetches('/authority.crt', 'application/x-x509-ca-cert', {
    about: 'Its certificate (DER, RFC 5280).',
  }),
  readHealth: reads('/health', 'Health', { about: 'Whether the database answers.' }),
  readState: reads('/state', 'State', {
    about: 'What the stream of news would tell from its beginning.',
    key: () => keys.state,
  }),
} as const;
