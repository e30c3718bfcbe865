import type { JsonObject } from './shape';

/** A thing as text: what is stored, sent, compared and written to a plan file. */
export type ThingDoc = JsonObject & { readonly id: string };

/** Where things stand, shared by all states that only changed and added some since. */
interface Places {
  readonly at: Map<string, number>;
  /** How many things the youngest state has that added some; it alone may add more. */
  youngest: number;
}

/**
 * Things by their ids, in the order in which they came. No state ever changes; the next one shares with it what is the
 * same, so that an edit of a plan of thousands does not copy a table of them.
 */
export class ThingMap implements ReadonlyMap<string, ThingDoc> {
  private constructor(
    readonly list: readonly ThingDoc[],
    private readonly places: Places,
  ) {}

  /** Of several with one id the last counts, at the place of the first. */
  static of(things: Iterable<ThingDoc>): ThingMap {
    const byId = new Map<string, ThingDoc>();
    for (const thing of things) byId.set(thing.id, thing);
    const list = [...byId.values()];
    return new ThingMap(list, placesOf(list));
  }

  /**
   * @param changed new states by id, in the order in which they came; what is not there yet is added at the end
   * @param removed what is taken out before; one that is changed as well comes again at the end
   */
  with(changed: ReadonlyMap<string, ThingDoc>, removed: ReadonlySet<string>): ThingMap {
    if (removed.size > 0) {
      const kept = this.list.filter(({ id }) => !removed.has(id));
      return kept.length === this.list.length
        ? this.with(changed, new Set())
        : ThingMap.of([...kept, ...changed.values()]);
    }
    const list = [...this.list];
    const added: ThingDoc[] = [];
    for (const [id, thing] of changed) {
      const place = this.indexOf(id);
      if (place === undefined) added.push(thing);
      else list[place] = thing;
    }
    return new ThingMap(list, added.length === 0 ? this.places : this.adding(added, list));
  }

  /** Its place in the list. */
  indexOf(id: string): number | undefined {
    const place = this.places.at.get(id);
    // What a younger state added stands beyond the end of this list, or something else stands there.
    return place !== undefined && this.list[place]?.id === id ? place : undefined;
  }

  get size(): number {
    return this.list.length;
  }

  get(id: string): ThingDoc | undefined {
    const place = this.indexOf(id);
    return place === undefined ? undefined : this.list[place];
  }

  has(id: string): boolean {
    return this.indexOf(id) !== undefined;
  }

  values(): MapIterator<ThingDoc> {
    return this.list.values();
  }

  *keys(): MapIterator<string> {
    for (const { id } of this.list) yield id;
  }

  *entries(): MapIterator<[string, ThingDoc]> {
    for (const thing of this.list) yield [thing.id, thing];
  }

  [Symbol.iterator](): MapIterator<[string, ThingDoc]> {
    return this.entries();
  }

  forEach(act: (thing: ThingDoc, id: string, map: ReadonlyMap<string, ThingDoc>) => void): void {
    for (const thing of this.list) act(thing, thing.id, this);
  }

  private adding(added: readonly ThingDoc[], list: ThingDoc[]): Places {
    const isYoungest = this.places.youngest === this.list.length;
    const places = isYoungest ? this.places : placesOf(this.list);
    for (const thing of added) {
      places.at.set(thing.id, list.length);
      list.push(thing);
    }
    places.youngest = list.length;
    return places;
  }
}

const placesOf = (list: readonly ThingDoc[]): Places => ({
  at: new Map(list.map(({ id }, place) => [id, place])),
  youngest: list.length,
});
