import { randomUUID } from 'node:crypto';
import { NOTHING_SEEN, type SeenView } from '@ipsonomo/core/api';
import {
  interfacesOf,
  type Device,
  type Evidence,
  type Interface,
  type Plan,
} from '@ipsonomo/core/plan';
import { Turns } from '@ipsonomo/threads';
import { inTurns } from '../common/in-turns';
import type { Latest } from '../store/latest-evidence';
import { seenView } from './seen-view';

interface Line {
  readonly device: Device;
  readonly at: Interface;
  readonly evidence: readonly Evidence[];
  readonly seen: SeenView;
  /** The count of this book when it became so. */
  readonly count: number;
}

/** A plan at a revision, and what was seen of it. */
export interface Known {
  readonly revision: number;
  readonly plan: Plan;
  readonly latest: Latest;
}

/** What changed after a mark, or all of it where the mark is of another book. */
export interface SeenSince {
  readonly seen: Readonly<Record<string, SeenView>>;
  readonly mark: string;
  readonly isWhole: boolean;
}

/**
 * What the evidence says of each interface of one plan. Brought forward, only what has another plan or other evidence
 * is looked at again; whoever has it up to a mark is told what changed since.
 */
export class SeenBook {
  private readonly era = randomUUID().slice(0, 8);
  private lines: ReadonlyMap<string, Line> = new Map();
  private readonly turns = new Turns();
  private count = 0;
  private state: Known | undefined;

  /**
   * Brings it forward, one state after the other; what is older than what it has is left aside. A first state of a large
   * plan takes a while, in which others are answered.
   */
  bring(state: Known): Promise<Known> {
    return this.turns.take(async () => {
      const known = this.state;
      const next = {
        ...(known && known.revision > state.revision ? known : state),
        latest: known && known.latest.place > state.latest.place ? known.latest : state.latest,
      };
      if (known?.plan === next.plan && known.latest === next.latest) return known;
      const lines = await this.linesOf(next.plan, next.latest);
      if (!isSame(this.lines, lines)) this.count += 1;
      this.lines = lines;
      this.state = next;
      return next;
    });
  }

  /** What it is now: whoever has all up to here misses nothing. */
  get mark(): string {
    return `${this.era}-${this.count}`;
  }

  private async linesOf(plan: Plan, latest: Latest): Promise<ReadonlyMap<string, Line>> {
    const lines = new Map<string, Line>();
    await inTurns(interfacesOf(plan), ({ device, at }) => {
      const evidence = latest.byInterface.get(at.id);
      if (!evidence) return;
      const known = this.lines.get(at.id);
      const isSame = known?.device === device && known.at === at && known.evidence === evidence;
      lines.set(
        at.id,
        isSame
          ? known
          : { device, at, evidence, seen: seenView(device, at, evidence), count: this.count + 1 },
      );
    });
    return lines;
  }

  of(interfaceId: string): SeenView {
    return this.lines.get(interfaceId)?.seen ?? NOTHING_SEEN;
  }

  /** @param mark as it was told last */
  since(mark: string | undefined): SeenSince {
    const [era, number] = mark?.split('-') ?? [];
    const isWhole = era !== this.era || !/^\d+$/.test(number ?? '');
    const from = isWhole ? -1 : Number(number);
    const seen: Record<string, SeenView> = {};
    for (const [id, line] of this.lines) if (line.count > from) seen[id] = line.seen;
    return { seen, mark: this.mark, isWhole };
  }
}

const isSame = (before: ReadonlyMap<string, Line>, now: ReadonlyMap<string, Line>): boolean =>
  before.size === now.size && [...now].every(([id, line]) => before.get(id) === line);
