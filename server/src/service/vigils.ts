import { stringify } from 'csv-stringify/sync';
import { DRAWN, type VigilView, type VigilWish } from '@ipsonomo/core/api';
import { formatIpv4 } from '@ipsonomo/core/net';
import { interfacesOf } from '@ipsonomo/core/plan';
import { interfacesIn } from '@ipsonomo/core/proof';
import { bucketsOf, LOST, summaryOf, worstWatched } from '@ipsonomo/core/vigil';
import type { VigilRing } from '@ipsonomo/wire';
import { Refusal } from '../store/refusal';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { Wires } from './wires';

const MOST_PER_SECOND = 500;
const BUCKETS = 120;
/** As a spreadsheet reads it: CRLF, and no text taken for a formula. */
const CSV = { record_delimiter: 'windows', escape_formulas: true } as const;
const NO_VIGIL: VigilView = { state: null, buckets: 0, rows: [] };

/** Devices asked in a steady beat over minutes to hours. */
export class Vigils {
  constructor(
    private readonly store: Store,
    private readonly wires: Pick<Wires, 'at'>,
  ) {}

  async begin(
    jobId: string,
    { scope, everySeconds, minutes }: VigilWish,
    actor: Actor,
  ): Promise<void> {
    const plan = await this.store.plan(jobId);
    const interfaceIds = interfacesIn(plan, scope).map(({ at }) => at.id);
    const count = interfaceIds.length;
    if (count === 0) throw Refusal.of('proof.nothing', '');
    if (count / everySeconds > MOST_PER_SECOND)
      throw Refusal.of('vigil.tooMany', '', { count, most: MOST_PER_SECOND });
    await this.wires.at(jobId).listen(actor);
    const times = { everyMillis: everySeconds * 1000, millis: minutes * 60_000 };
    await this.wires.at(jobId).call({ kind: 'vigil', interfaceIds, ...times, person: actor.name });
  }

  end(jobId: string): Promise<void> {
    return this.wires.at(jobId).callIfOpen({ kind: 'vigil-stop' });
  }

  view(jobId: string): VigilView {
    const now = this.now(jobId);
    if (!now) return NO_VIGIL;
    const { state, ring } = now;
    const size = Math.max(1, Math.ceil(state.beats / BUCKETS));
    const all = ring.shared.interfaceIds.map((interfaceId, device) => {
      const values = ring.of(device);
      return { interfaceId, values, summary: summaryOf(values) };
    });
    const worst = all.toSorted((a, b) => worstWatched(a.summary, b.summary));
    const rows = worst.map(({ interfaceId, values, summary }, at) => {
      // As many beats in each as at the end, so that the strip grows and does not shrink.
      const most = Math.max(1, Math.ceil(values.length / size));
      return { interfaceId, summary, buckets: at < DRAWN ? bucketsOf(values, most) : [] };
    });
    return {
      state: { ...state, how: state.how ?? null },
      buckets: Math.ceil(state.beats / size),
      rows,
    };
  }

  /** Every beat: a line for each, a column for each device, milliseconds or `lost`. RFC 4180. */
  async csv(jobId: string): Promise<string> {
    const now = this.now(jobId);
    if (!now) throw Refusal.of('vigil.none', '');
    const { ring } = now;
    const { interfaceIds, startedAt, everyMillis } = ring.shared;
    const plan = await this.store.plan(jobId);
    const names = new Map(
      interfacesOf(plan).map(({ device, at }) => [
        at.id,
        `${device.title} ${formatIpv4(at.address)}`,
      ]),
    );
    const rows: string[][] = [['time', ...interfaceIds.map((id) => names.get(id) ?? id)]];
    for (let beat = 0; beat < ring.beats; beat += 1) {
      const at = new Date(startedAt + beat * everyMillis).toISOString();
      rows.push([at, ...interfaceIds.map((_, device) => cellOf(ring.at(device, beat)))]);
    }
    return stringify(rows, CSV);
  }

  private now(jobId: string) {
    const { vigil: ring, status } = this.wires.at(jobId);
    const state = status.vigil;
    const isIts = ring && state && isOf(ring, state.startedAt);
    return isIts ? { ring, state } : undefined;
  }
}

/** The ring of this vigil, and not of the one before. */
const isOf = (ring: VigilRing, startedAt: number): boolean => ring.shared.startedAt === startedAt;

/** What was not asked, or is awaited, is empty. */
const cellOf = (value: number): string =>
  value === LOST ? 'lost' : value > 0xfffc ? '' : String(value / 10);
