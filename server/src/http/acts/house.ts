import type { houseActs } from '@ipsonomo/contract';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const houseHandlers = (services: Services): Handlers<typeof houseActs> => {
  const { door, openAt, store, events } = services;
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
    readHealth: async () => ({ database: await store.isAlive() }),
    readState: () => events.state(),
  };
};
