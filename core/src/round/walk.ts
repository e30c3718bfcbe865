import { compareCosts, type RoundCost } from './cost';
import { NONE, type RoundGroups } from './groups';

interface Sums {
  laptop: number;
  areas: number;
  cabinets: number;
  walk: number;
}

/**
 * An order of groups, with what it costs up to each of its places: a change is weighed by the places that it
 * changes and not by the whole. Field by field as in `RoundCost`; written without objects, since it is asked some
 * hundred thousand times for one round.
 */
export class Walk {
  readonly cost: RoundCost;
  /** Of the groups before each place, and of all at the end. */
  private readonly laptop: Int32Array;
  private readonly areas: Int32Array;
  private readonly cabinets: Int32Array;
  private readonly walked: Int32Array;
  /** As the laptop is set before each place. */
  private readonly setBefore: Int32Array;
  /** The first place from here on that sets the laptop; the end where none does. */
  private readonly nextSetting: Int32Array;
  private readonly sums: Sums = { laptop: 0, areas: 0, cabinets: 0, walk: 0 };

  constructor(
    private readonly groups: RoundGroups,
    readonly order: Int32Array,
  ) {
    const count = order.length;
    const [laptop, areas, cabinets, walked] = [0, 0, 0, 0].map(() => new Int32Array(count + 1));
    this.laptop = laptop as Int32Array;
    this.areas = areas as Int32Array;
    this.cabinets = cabinets as Int32Array;
    this.walked = walked as Int32Array;
    this.setBefore = new Int32Array(count + 1).fill(NONE);
    this.nextSetting = new Int32Array(count + 1).fill(count);
    for (let at = 0; at < count; at += 1) this.add(at);
    for (let at = count - 1; at >= 0; at -= 1)
      this.nextSetting[at] = this.setting(at) === NONE ? (this.nextSetting[at + 1] ?? count) : at;
    this.cost = {
      clashes: groups.clashes(order),
      laptop: this.laptop[count] ?? 0,
      areas: this.areas[count] ?? 0,
      cabinets: this.cabinets[count] ?? 0,
      walk: this.walked[count] ?? 0,
      power: groups.power(order),
    };
  }

  /**
   * What the order would cost with other groups from a place on; undefined where that is not cheaper than `than`.
   * @param window the same groups as stand there now, in another order
   */
  cheaper(from: number, window: Int32Array, than: RoundCost): RoundCost | undefined {
    const sums = this.sumsWith(from, window);
    const apart =
      sums.laptop - than.laptop ||
      sums.areas - than.areas ||
      sums.cabinets - than.cabinets ||
      sums.walk - than.walk;
    const mayBe = apart < 0 || (apart === 0 && than.power > 0);
    // Where the other has clashes, fewer of them outweigh all the rest; where it has none, they need a look only then.
    if (than.clashes === 0 && !mayBe) return undefined;
    const order = this.order.slice();
    order.set(window, from);
    const clashes = this.groups.clashes(order);
    if (clashes > than.clashes || (clashes === than.clashes && !mayBe)) return undefined;
    const { laptop, areas, cabinets, walk } = sums;
    const cost = { clashes, laptop, areas, cabinets, walk, power: this.groups.power(order) };
    return compareCosts(cost, than) < 0 ? cost : undefined;
  }

  /** All but clashes and power, into `sums`. */
  private sumsWith(from: number, window: Int32Array): Sums {
    const { setting, area, cabinet } = this.groups;
    const end = from + window.length;
    const count = this.order.length;
    let laptop = this.laptop[from] ?? 0;
    let areas = this.areas[from] ?? 0;
    let cabinets = this.cabinets[from] ?? 0;
    let walk = this.walked[from] ?? 0;
    let set = this.setBefore[from] ?? NONE;
    let before = from > 0 ? (this.order[from - 1] ?? NONE) : NONE;
    // The group behind the window is come to from another one.
    const last = end < count ? window.length : window.length - 1;
    for (let at = 0; at <= last; at += 1) {
      const group = (at < window.length ? window[at] : this.order[end]) ?? NONE;
      if (before !== NONE) {
        const apart = Math.abs((cabinet[group] ?? 0) - (cabinet[before] ?? 0));
        if (apart > 0) cabinets += 1;
        walk += apart;
        if (area[group] !== area[before]) areas += 1;
      }
      const next = setting[group] ?? NONE;
      if (at < window.length && next !== NONE) {
        if (set !== NONE && set !== next) laptop += 1;
        set = next;
      }
      before = group;
    }
    const behind = Math.min(end + 1, count);
    areas += (this.areas[count] ?? 0) - (this.areas[behind] ?? 0);
    cabinets += (this.cabinets[count] ?? 0) - (this.cabinets[behind] ?? 0);
    walk += (this.walked[count] ?? 0) - (this.walked[behind] ?? 0);
    const sets = this.nextSetting[end] ?? count;
    if (sets < count) {
      if (set !== NONE && set !== this.setting(sets)) laptop += 1;
      laptop += (this.laptop[count] ?? 0) - (this.laptop[sets + 1] ?? 0);
    }
    this.sums.laptop = laptop;
    this.sums.areas = areas;
    this.sums.cabinets = cabinets;
    this.sums.walk = walk;
    return this.sums;
  }

  private setting(at: number): number {
    return this.groups.setting[this.order[at] ?? 0] ?? NONE;
  }

  private add(at: number): void {
    const { area, cabinet } = this.groups;
    const group = this.order[at] ?? 0;
    const set = this.setBefore[at] ?? NONE;
    const next = this.setting(at);
    const changes = next !== NONE && set !== NONE && set !== next;
    this.laptop[at + 1] = (this.laptop[at] ?? 0) + (changes ? 1 : 0);
    this.setBefore[at + 1] = next === NONE ? set : next;
    const before = at > 0 ? (this.order[at - 1] ?? 0) : group;
    const apart = Math.abs((cabinet[group] ?? 0) - (cabinet[before] ?? 0));
    this.areas[at + 1] = (this.areas[at] ?? 0) + (area[group] === area[before] ? 0 : 1);
    this.cabinets[at + 1] = (this.cabinets[at] ?? 0) + (apart > 0 ? 1 : 0);
    this.walked[at + 1] = (this.walked[at] ?? 0) + apart;
  }
}
