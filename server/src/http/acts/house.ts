import type { houseActs } from '@ipsonomo/contract';
import { Refusal } from '../../store/refusal';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const houseHandlers = (services: Services): Handlers<typeof houseActs> => {
  const { authority, door, openAt, store, events } = services;
  return {
    listKeys: ({ actor }) => door.view(actor.browser),
    addKey: async ({ actor, body }) => {
      // A page says what it means; from the terminal, without a word, it is for a keeper.
      const { role = actor.account ? 'assign' : 'keep', account } = body;
      const { key, endsAt } = await door.invite({
        ...{ by: actor.name, role },
        ...(account === undefined ? {} : { account }),
      });
      return { key, endsAt, addresses: openAt(key) };
    },
    takeKeyBack: ({ params }) => door.takeBack(params.key),
    readAuthority: () => authority?.view ?? { port: null, fingerprint: '' },
    fetchAuthority: () => {
      if (!authority) throw Refusal.of('thing.unknown', 'authority');
      return { name: 'ipsonomo-authority.crt', bytes: authority.der };
    },
    readHealth: async () => ({ database: await store.isAlive() }),
    readState: () => events.state(),
  };
};
