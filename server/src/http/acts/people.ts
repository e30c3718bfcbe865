import type { peopleActs } from '@ipsonomo/contract';
import { ROLES, type MeView } from '@ipsonomo/core/api';
import type { Actor } from '../../service/actor';
import { Refusal } from '../../store/refusal';
import type { Handlers } from '../serve';
import type { Services } from '../services';

const HOUR = 3_600_000;

/** The machine's own person has no account; nobody else comes as far as this without one. */
const ownAccount = ({ account }: Actor): string => {
  if (!account) throw Refusal.of('thing.unknown', 'account');
  return account.id;
};

export const peopleHandlers = (services: Services): Handlers<typeof peopleActs> => {
  const { door, events, people, wires } = services;
  const me = (actor: Actor): MeView =>
    actor.account
      ? people.me(actor.account.id)
      : {
          ...{ id: null, name: actor.name, role: ROLES[ROLES.length - 1] ?? 'keep' },
          ...{ hasPassword: false, grants: [] },
        };
  const all = ({ account }: Actor) => ({ accounts: people.views(account?.id) });
  return {
    readMe: ({ actor }) => me(actor),
    changeMe: async ({ actor, body }) => {
      await people.rename(ownAccount(actor), body.name);
      return me(actor);
    },
    setPassword: async ({ actor, body }) => {
      const id = ownAccount(actor);
      await people.setPassword(id, body.password, body.old);
      await door.signOut(id, actor.browser);
      return me(actor);
    },
    signOut: async ({ actor, body }) => {
      const id = ownAccount(actor);
      if (body.from === 'everywhere') await door.signOut(id);
      else if (actor.browser !== undefined && actor.browser !== id)
        await door.takeBack(actor.browser);
    },
    listPeople: ({ actor }) => all(actor),
    changePerson: async ({ actor, params, body }) => {
      await people.changeRole(params.account, body.role);
      return all(actor);
    },
    endPerson: async ({ params }) => {
      await people.end(params.account);
      await door.signOut(params.account);
      // A program has no browser, and may have the stream open.
      events.closeOf(params.account);
    },
    letSend: async ({ actor, params, body }) => {
      const { adapter } = wires.at(params.job);
      if (adapter === undefined) throw Refusal.of('field.noWire', '');
      const until = Date.now() + body.hours * HOUR;
      await people.letSend(body.account, params.job, adapter, until, actor.name);
      return all(actor);
    },
    endSending: async ({ actor, params, body }) => {
      await people.endSending(body.account, params.job);
      return all(actor);
    },
    addProgram: ({ actor, body }) => people.addProgram({ ...body, by: actor.name }),
  };
};
