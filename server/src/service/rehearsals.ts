import type { MistakeClaim, RehearsalView } from '@ipsonomo/core/api';
import type { RehearsedPlan } from '@ipsonomo/practice';
import { docBefore, planOf } from '@ipsonomo/core/plan';
import type { RehearsalRow } from '../store/models';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';

/** The revision that a rehearsal's site is made of: the plan as it was copied. */
const COPIED = 1;

/** Jobs whose wire is a site made of their own plan, with mistakes to be found (R-REHEARSE). */
export class Rehearsals {
  private readonly known = new Set<string>();
  /** Jobs that were looked up, and are none. */
  private readonly others = new Set<string>();

  private constructor(private readonly store: Store) {}

  static async open(store: Store): Promise<Rehearsals> {
    const all = new Rehearsals(store);
    for (const id of await store.rehearsals.ids()) all.begun(id);
    return all;
  }

  has(jobId: string): boolean {
    return this.known.has(jobId);
  }

  begun(jobId: string): void {
    this.known.add(jobId);
  }

  /** One that another server began is known before anything of it is answered here, however late the news of it come. */
  async lookUp(jobId: string): Promise<void> {
    if (this.known.has(jobId) || this.others.has(jobId)) return;
    const row = await this.store.rehearsals.find(jobId);
    if (row) this.begun(jobId);
    else this.others.add(jobId);
  }

  /** What the site of a job is made of; undefined where it is no rehearsal. */
  async planFor(jobId: string): Promise<RehearsedPlan | undefined> {
    if (!this.has(jobId)) return undefined;
    const { seed, wish } = await this.row(jobId);
    const [{ doc }, later, found] = await Promise.all([
      this.store.planState(jobId),
      this.store.editsSince(jobId, COPIED),
      this.store.rehearsals.found(jobId),
    ]);
    // Devices stay as they were delivered, whatever is changed in the plan since.
    const delivered = docBefore(
      doc,
      later.flatMap(({ edits }) => edits),
    );
    return { plan: planOf(delivered ?? doc), seed, wish, found: found.map(({ id }) => id) };
  }

  async view(jobId: string): Promise<RehearsalView> {
    const row = await this.row(jobId);
    const found = await this.store.rehearsals.found(jobId);
    const { of_job: id, of_name: name, of_revision: revision, ended_at: ended } = row;
    const missed = row.mistakes.filter((one) => !found.some((other) => other.id === one.id));
    return {
      of: id === null ? null : { id, name, revision },
      seed: row.seed,
      begunAt: row.begun_at.getTime(),
      endedAt: ended?.getTime() ?? null,
      mistakes: row.mistakes.length,
      ...{ found, missed: ended ? missed : [], wrongClaims: row.wrong_claims },
      unrehearsed: row.unrehearsed,
    };
  }

  /** Says what is wrong. @returns the mistake that it is, undefined where nothing of the kind is wrong there */
  async claim(jobId: string, claim: MistakeClaim, actor: Actor): Promise<string | undefined> {
    const { mistakes, ended_at: ended } = await this.row(jobId);
    if (ended) throw Refusal.of('rehearsal.ended', '');
    const mistake = mistakes.find(
      ({ kind, interfaceId }) => kind === claim.kind && interfaceId === claim.interfaceId,
    );
    if (mistake) await this.store.rehearsals.addFound(jobId, mistake, actor.name);
    else await this.store.rehearsals.countWrong(jobId);
    return mistake?.id;
  }

  async end(jobId: string): Promise<RehearsalView> {
    await this.row(jobId);
    await this.store.rehearsals.end(jobId);
    return this.view(jobId);
  }

  private async row(jobId: string): Promise<RehearsalRow> {
    const row = await this.store.rehearsals.find(jobId);
    if (!row) throw Refusal.of('rehearsal.none', '');
    return row;
  }
}
