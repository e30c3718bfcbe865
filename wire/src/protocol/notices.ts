import type { NoticeCode, NoticeFacts } from '@ipsonomo/core/plan';
import type { FieldNotice } from './status';

const MOST = 20;

/** Why nothing is done any more: nobody may push these out of sight. */
const STOPS: ReadonlySet<FieldNotice['code']> = new Set([
  ...(['other-server', 'disk-full', 'page-lost', 'adapter-gone', 'link-down'] as const),
  ...(['plan-untold', 'wire-taken', 'silenced-from', 'server-fell', 'thread-fell'] as const),
]);
/** What anybody on the wire can cause as often as they like. */
const CHEAP: ReadonlySet<FieldNotice['code']> = new Set([
  ...(['unreadable', 'other-question', 'server-named'] as const),
]);

/** Whether it stays in sight until a person has read it, however old it is. */
export const stays = ({ code }: FieldNotice): boolean => STOPS.has(code);

const rankOf = ({ code }: FieldNotice): number => (STOPS.has(code) ? 2 : CHEAP.has(code) ? 0 : 1);

/**
 * The last notices for the link line, newest first; the same one again only moves up. Where there are too many, the
 * oldest of the lowest rank goes: a flood of frames does not hide what stopped us.
 */
export class Notices {
  private all: readonly FieldNotice[] = [];

  constructor(private readonly changed: () => void) {}

  get list(): readonly FieldNotice[] {
    return this.all;
  }

  /** A person has read it. */
  read(code: string, at: number): void {
    this.all = this.all.filter((one) => one.code !== code || one.at !== at);
    this.changed();
  }

  add<C extends NoticeCode>(code: C, facts: NoticeFacts[C], at: number): void {
    const same = (one: FieldNotice) =>
      one.code === code && JSON.stringify(one.facts) === JSON.stringify(facts);
    // Code and facts belong together, as they were given.
    const one = { code, facts, at } as unknown as FieldNotice;
    const all = [one, ...this.all.filter((one) => !same(one))];
    if (all.length > MOST) {
      const least = Math.min(...all.map(rankOf));
      all.splice(
        all.findLastIndex((one) => rankOf(one) === least),
        1,
      );
    }
    this.all = all;
  }
}
