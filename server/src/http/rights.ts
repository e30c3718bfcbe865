import { hasRight, type AnyAct } from '@ipsonomo/contract';
import type { Actor } from '../service/actor';
import { Refusal } from '../store/refusal';
import type { Services } from './services';

export interface Rights {
  /** Refuses whoever may not do such a thing at all. */
  readonly may: (actor: Actor, act: AnyAct) => void;
  /** Refuses whoever may send, but not on the wire of this job. */
  readonly maySend: (actor: Actor, job: string) => void;
}

/**
 * R-RIGHTS: what an act needs is part of its contract, and looked at here for all of them, before anything of it is read. To
 * send needs a grant for the job's adapter besides; a practice site is nobody's wire. The machine's own person may
 * everything: they could read the database itself.
 */
export const rightsIn = ({ people, wires }: Pick<Services, 'people' | 'wires'>): Rights => ({
  may: ({ account }, { right }) => {
    if (account && !hasRight(account.role, right))
      throw Refusal.of('right.missing', '', { need: right, have: account.role });
  },
  maySend: ({ account }, job) => {
    const { adapter } = wires.at(job);
    if (account && adapter !== undefined && !people.maySend(account.id, job, adapter))
      throw Refusal.of('right.send', '', { wire: adapter });
  },
});
