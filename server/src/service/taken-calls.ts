import type { TakenCallView } from '@ipsonomo/core/api';
import { findInterface } from '@ipsonomo/core/plan';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import { isOf, type TakenCall, type Taker } from '../store/taken-call-store';
import type { Actor } from './actor';

/** R-AT-IT: so long after the last act nobody is at a device any more, in milliseconds. */
export const AT_IT = 15 * 60_000;

const takerOf = ({ name, account }: Actor): Taker => ({ person: name, account: account?.id });

/** Who is at which device of a job. Nobody is kept from acting: two at one cabinet are told of each other. */
export class TakenCalls {
  constructor(
    private readonly store: Store,
    /** By the time of people. */
    private readonly clock: () => number,
    /** Everybody in the job looks again. */
    private readonly told: (jobId: string) => void,
  ) {}

  async all(jobId: string, actor: Actor): Promise<readonly TakenCallView[]> {
    const taker = takerOf(actor);
    const rows = await this.store.takenCalls.all(jobId, new Date(this.clock()));
    return rows.map((row) => viewOf(row, taker));
  }

  /**
   * Somebody goes to a device. Refuses with `call.taken` where somebody else is at it and there is no word for them, and
   * with `thing.unknown` where there is no such device.
   */
  async take(jobId: string, interfaceId: string, word: string, actor: Actor): Promise<void> {
    if (!findInterface(await this.store.plan(jobId), interfaceId))
      throw Refusal.of('thing.unknown', 'device');
    const given = word.trim() === '' ? undefined : word.trim();
    const call = await this.reach(jobId, interfaceId, actor, given);
    if (!isOf(call, takerOf(actor))) throw Refusal.of('call.taken', '', { person: call.person });
  }

  /** Who does something at a device is at it, unless somebody else is; a script is nowhere, and neither is what comes late. */
  async acted(jobId: string, interfaceId: string, actor: Actor): Promise<void> {
    const wasElsewhere = actor.waited && this.clock() - actor.waited.doneAt > AT_IT;
    if (actor.account && !wasElsewhere) await this.reach(jobId, interfaceId, actor, undefined);
  }

  private async reach(
    jobId: string,
    interfaceId: string,
    actor: Actor,
    word: string | undefined,
  ): Promise<TakenCall> {
    const now = this.clock();
    const times = { now: new Date(now), until: new Date(now + AT_IT) };
    const taking = { jobId, interfaceId, taker: takerOf(actor), word, ...times };
    const { call, isNew } = await this.store.takenCalls.take(taking);
    if (isNew) this.told(jobId);
    return call;
  }

  async leave(jobId: string, interfaceId: string, actor: Actor): Promise<void> {
    if (await this.store.takenCalls.leave(jobId, interfaceId, takerOf(actor))) this.told(jobId);
  }
}

const viewOf = (row: TakenCall, taker: Taker): TakenCallView => ({
  ...{ interface: row.interfaceId, person: row.person, isOwn: isOf(row, taker) },
  ...{ since: row.since.getTime(), until: row.until.getTime() },
  takenFrom:
    row.takenFrom === null
      ? null
      : {
          person: row.takenFrom,
          isMe: isOf({ person: row.takenFrom, accountId: row.takenFromAccount }, taker),
          word: row.word ?? '',
        },
});
