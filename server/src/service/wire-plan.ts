import { nextLoanEnd } from '@ipsonomo/core/plan';
import { planNews, type FieldCommand, type FieldPlan } from '@ipsonomo/wire';
import type { Store } from '../store/store';
import { FieldPlanBook } from './field-plan';

const LONGEST_WAIT = 2 ** 31 - 1;

/** The plan of a job as its wire has it: told whole at first, then what changed, and again when a loan ends. */
export class WirePlan {
  private loanEnds: NodeJS.Timeout | undefined;
  private readonly plans = new FieldPlanBook();
  /** The plan that the wire has; undefined where nobody knows. */
  private sent: FieldPlan | undefined;
  private untold = false;

  /** @param loanOver called when the plan has to be told again though nobody changed it */
  constructor(
    private readonly jobId: string,
    private readonly of: { readonly store: Store; readonly clock: () => number },
    private readonly call: (command: FieldCommand) => Promise<void>,
    private readonly loanOver: () => Promise<void>,
  ) {}

  /** Whether the wire does not know the plan as it is now. */
  get isUntold(): boolean {
    return this.untold;
  }

  /** The plan was changed, and could not be told. */
  notTold(): void {
    this.untold = true;
  }

  /** Whatever has it is gone. */
  forget(): void {
    clearTimeout(this.loanEnds);
    this.sent = undefined;
  }

  /** All of it, to a wire that may have another job's or none. */
  tellWhole(): Promise<void> {
    this.sent = undefined;
    return this.tell();
  }

  /** What changed since it was told. One after the other, or an older plan could reach the wire after a newer one. */
  async tell(): Promise<void> {
    const { store, clock } = this.of;
    const [plan, { byInterface }] = await Promise.all([
      store.plan(this.jobId),
      store.evidence.latest(this.jobId),
    ]);
    const now = clock();
    const next = this.plans.of(this.jobId, plan, byInterface, now);
    const known = this.sent?.targets;
    // Where this is not taken, nobody knows what the wire has.
    this.sent = undefined;
    await this.call({ kind: 'plan', plan: planNews(next, known) });
    this.sent = next;
    this.untold = false;
    this.whenLoanEnds(nextLoanEnd(plan, now) - now);
  }

  /** R-LOAN: from then on the planned address is given. @param millis until then */
  private whenLoanEnds(millis: number): void {
    clearTimeout(this.loanEnds);
    if (millis === Infinity) return;
    // Longer than a timer can wait: it looks again then.
    this.loanEnds = setTimeout(
      () => {
        void this.loanOver().catch(() => undefined);
      },
      Math.min(millis + 1, LONGEST_WAIT),
    );
    this.loanEnds.unref();
  }
}
