import type { ActName } from '@ipsonomo/contract';
import type { Issue } from '@ipsonomo/core/net';
import type { Edit, EditConflict } from '@ipsonomo/core/plan';

// R-WAIT: each act that may wait is kept by the browser before it is sent, and until the server has said what became of it. It
// has a number of its own, so that sent twice it is done once: a page that is closed in between loses nothing.

export interface WaitingAct {
  /** In this browser's own count, which holds where its clock does not. */
  readonly place: number;
  /** UUID */
  readonly id: string;
  readonly act: ActName;
  readonly params: Readonly<Record<string, string>>;
  readonly body: unknown;
  /** What it changes of the plan, as this browser knew it. */
  readonly edits: readonly Edit[];
  /** Milliseconds since 1970, by this browser's clock. */
  readonly doneAt: number;
  readonly person: string;
  /** Of whoever did it; undefined of the machine's own person, and of what somebody else took over. */
  readonly account: string | undefined;
  /** Why the server refused it when it was sent later; a person decides what becomes of it. */
  readonly refused: Refused | null;
}

export interface Refused {
  readonly issues: readonly Issue[];
  readonly conflicts: readonly EditConflict[];
}

/** What became of an act that was sent. */
export type Sent =
  | { readonly kind: 'done'; readonly answer: unknown }
  | { readonly kind: 'refused'; readonly refused: Refused }
  /** Nobody answered, or not now, or this browser is not let in for the moment. */
  | { readonly kind: 'away' };

/** What became of an act: done, refused, or kept until the server is there again. */
export type Outcome = Exclude<Sent, { readonly kind: 'away' }> | { readonly kind: 'waits' };

/** Where they are kept; each call ends when it is on the disk. */
export interface OutboxStore {
  all(): Promise<readonly WaitingAct[]>;
  /** @returns its place */
  add(act: Omit<WaitingAct, 'place'>): Promise<number>;
  /** Nothing where it is gone already. */
  change(act: WaitingAct): Promise<void>;
  remove(place: number): Promise<void>;
}

export interface OutboxParts {
  readonly store: OutboxStore;
  readonly send: (act: WaitingAct) => Promise<Sent>;
  /** One after the other for a job, over all tabs of the browser where it can. */
  readonly inTurn: <T>(job: string, work: () => Promise<T>) => Promise<T>;
  /** What is held has changed. */
  readonly changed: () => void;
  /** Acts of this job that were held are done. */
  readonly done: (job: string) => void;
}

const jobOf = ({ params }: Pick<WaitingAct, 'params'>): string => params['job'] ?? '';

export class Outbox {
  /** Those that could not be sent at once; what is under way just now is nobody's business. */
  held: readonly WaitingAct[] = [];
  private flushing: Promise<void> | undefined;
  /** Own acts that are being sent for the first time. */
  private readonly underWay = new Set<number>();

  constructor(private readonly parts: OutboxParts) {}

  /** What an earlier page left, or another tab: all of it is held but what is being sent here. */
  async load(): Promise<void> {
    const all = await this.parts.store.all();
    this.put(all.filter(({ place }) => !this.underWay.has(place)));
  }

  /**
   * Does it, or keeps it. In a job everything goes in its order: what comes after something that waits, waits as well.
   * @throws what the store throws where nothing can be kept and nobody answers
   */
  async do(act: Omit<WaitingAct, 'place'>): Promise<Outcome> {
    const place = await this.parts.store.add(act).catch(() => undefined);
    if (place === undefined) return this.sendUnkept({ ...act, place: 0 });
    const kept = { ...act, place };
    this.underWay.add(place);
    return this.parts
      .inTurn(jobOf(act), () => this.first(kept))
      .finally(() => this.underWay.delete(place));
  }

  private async first(act: WaitingAct): Promise<Outcome> {
    const isBehind = this.held.some(
      (one) => jobOf(one) === jobOf(act) && one.refused === null && one.place < act.place,
    );
    const sent: Sent = isBehind ? { kind: 'away' } : await this.parts.send(act);
    if (sent.kind !== 'away') {
      await this.parts.store.remove(act.place);
      return sent;
    }
    this.put([...this.held.filter(({ place }) => place !== act.place), act]);
    return { kind: 'waits' };
  }

  /** Without room to keep it there is only now. */
  private async sendUnkept(act: WaitingAct): Promise<Outcome> {
    const sent = await this.parts.inTurn(jobOf(act), () => this.parts.send(act));
    if (sent.kind !== 'away') return sent;
    return {
      kind: 'refused',
      refused: { issues: [{ code: 'waiting.full', where: '' }], conflicts: [] },
    };
  }

  /** Sends what is held, a job after the other, until somebody does not answer. */
  flush(): Promise<void> {
    this.flushing ??= this.sendAll().finally(() => (this.flushing = undefined));
    return this.flushing;
  }

  private async sendAll(): Promise<void> {
    await this.load();
    for (const job of new Set(this.held.map(jobOf)))
      await this.parts.inTurn(job, () => this.sendOf(job));
  }

  private async sendOf(job: string): Promise<void> {
    // Another tab may have sent some of it meanwhile.
    await this.load();
    let isDone = false;
    for (const act of this.held) {
      if (jobOf(act) !== job || act.refused !== null) continue;
      const sent = await this.parts.send(act);
      if (sent.kind === 'away') break;
      isDone = true;
      if (sent.kind === 'done') await this.forget(act.place);
      else await this.note({ ...act, refused: sent.refused });
    }
    if (isDone) this.parts.done(job);
  }

  /** It is sent once more, otherwise perhaps. */
  async again(act: WaitingAct): Promise<void> {
    await this.note({ ...act, refused: null });
    await this.flush();
  }

  /** A person gives it up. */
  async drop(act: WaitingAct): Promise<void> {
    await this.forget(act.place);
    this.parts.done(jobOf(act));
  }

  private async forget(place: number): Promise<void> {
    await this.parts.store.remove(place);
    this.put(this.held.filter((one) => one.place !== place));
  }

  private async note(act: WaitingAct): Promise<void> {
    await this.parts.store.change(act);
    this.put(this.held.map((one) => (one.place === act.place ? act : one)));
  }

  private put(held: readonly WaitingAct[]): void {
    this.held = [...held].sort((a, b) => a.place - b.place);
    this.parts.changed();
  }
}
