import { USUAL_PACE, type Pace, type Work } from './work';

// R-PLAY: a round played without anybody: people walk from cabinet to cabinet in its order and do what can be done there,
// while devices start by themselves. There is one laptop (or more), which all who work where it is plugged in use at once;
// it goes elsewhere once nobody needs it there. Of devices that come with one address only one may be fresh and have power
// at a time.

export interface PlayWish {
  /** 1 to 4 of them. */
  readonly people: number;
  readonly laptops?: number;
  readonly pace?: Pace;
}

/** Why somebody stands and waits. */
export type WaitedFor = 'device' | 'laptop' | 'factory';

export interface PlayedPerson {
  /** Seconds of each; together with waiting they are the time until this one is done. */
  readonly worked: number;
  readonly walked: number;
  readonly waited: Readonly<Record<WaitedFor, number>>;
  readonly doneAt: number;
}

/** One stay at one cabinet. */
export interface PlayedStop {
  readonly cabinet: number;
  readonly person: number;
  readonly calls: number;
  /** Seconds since the beginning. */
  readonly from: number;
  readonly to: number;
}

export interface Played {
  readonly seconds: number;
  readonly people: readonly PlayedPerson[];
  readonly stops: readonly PlayedStop[];
}

/** Calls that follow one another at one cabinet. */
interface Stop {
  readonly cabinet: number;
  readonly area: string;
  /** How many there were. */
  count: number;
  /** Those that are not done: the many that are need not be looked at again. */
  readonly open: Call[];
  /** The same by where they need the laptop. */
  readonly byPlace: Map<string | undefined, Call[]>;
}

interface Call {
  readonly work: Work;
  /** Of its parts: how many are done. */
  done: number;
  /** A part of it goes on. */
  isBusy: boolean;
  stop: Stop | undefined;
}

interface Person {
  readonly number: number;
  stop: Stop | undefined;
  since: number;
  area: string | undefined;
  isFree: boolean;
  isGone: boolean;
  worked: number;
  walked: number;
  readonly waited: Record<WaitedFor, number>;
  doneAt: number;
}

const stopsOf = (round: readonly Work[]): readonly Stop[] => {
  const stops: Stop[] = [];
  for (const work of round) {
    const before = stops.at(-1);
    const { cabinet, area } = work;
    const stop: Stop =
      before?.cabinet === cabinet
        ? before
        : { cabinet, area, count: 0, open: [], byPlace: new Map() };
    if (stop !== before) stops.push(stop);
    add(stop, { work, done: 0, isBusy: false, stop });
  }
  return stops;
};

function add(stop: Stop, call: Call): void {
  stop.count += 1;
  if (isDone(call)) return;
  stop.open.push(call);
  const there = stop.byPlace.get(call.work.laptop);
  if (there) there.push(call);
  else stop.byPlace.set(call.work.laptop, [call]);
}

/** What is done stands near the front: it was begun first. */
function close(call: Call): void {
  for (const list of [call.stop?.open, call.stop?.byPlace.get(call.work.laptop)]) {
    const at = list?.indexOf(call) ?? -1;
    if (at >= 0) list?.splice(at, 1);
  }
}

const isDone = ({ work, done }: Call): boolean => done === work.parts.length;

/** Plays a round. @returns how long it takes, for whom, and what everybody waited for */
export const playRound = (round: readonly Work[], wish: PlayWish): Played =>
  new Play(round, wish).run();

/** A laptop, and what it is plugged into and set to. */
interface Laptop {
  place: string | undefined;
  users: number;
  isPlugged: boolean;
}

class Play {
  private readonly stops: readonly Stop[];
  private readonly people: readonly Person[];
  private readonly laptops: readonly Laptop[];
  private readonly pace: Pace;
  /** Factory addresses that a fresh device has now, by whom. */
  private readonly held = new Map<string, Call>();
  private readonly events = new Agenda();
  private readonly stays: PlayedStop[] = [];
  private next = 0;
  private now = 0;

  constructor(round: readonly Work[], { people, laptops = 1, pace = USUAL_PACE }: PlayWish) {
    this.stops = stopsOf(round);
    this.pace = pace;
    this.laptops = Array.from({ length: laptops }, () => ({
      ...{ place: undefined, users: 0, isPlugged: true },
    }));
    this.people = Array.from({ length: people }, (_, number) => ({
      ...{ number, stop: undefined, since: 0, area: undefined, isFree: true, isGone: false },
      ...{ worked: 0, walked: 0, waited: { device: 0, laptop: 0, factory: 0 }, doneAt: 0 },
    }));
  }

  run(): Played {
    for (;;) {
      // One after the other, until nobody begins anything more: what one does may be what another waited for.
      while (this.people.some((person) => this.canAct(person)));
      const at = this.events.soonest();
      if (at === undefined) break;
      this.wait(at - this.now);
      this.now = at;
      for (const end of this.events.take(at)) end();
    }
    return {
      seconds: Math.max(0, ...this.people.map(({ doneAt }) => doneAt)),
      people: this.people.map(({ worked, walked, waited, doneAt }) => ({
        ...{ worked, walked, waited, doneAt },
      })),
      stops: this.stays,
    };
  }

  /** Begins the next thing that this one can do. @returns whether there was one */
  private canAct(person: Person): boolean {
    if (!person.isFree || person.isGone) return false;
    const { stop } = person;
    if (!stop) return this.goOn(person);
    for (const call of stop.open) if (this.canBegin(person, call)) return true;
    if (stop.open.length > 0) return false;
    const { cabinet, count } = stop;
    this.stays.push({
      ...{ cabinet, person: person.number, calls: count, from: person.since, to: this.now },
    });
    person.stop = undefined;
    return true;
  }

  /** To the next stop that nobody has taken; whoever finds none is done. */
  private goOn(person: Person): boolean {
    const stop = this.stops[this.next];
    if (!stop) {
      person.isGone = true;
      person.doneAt = this.now;
      return true;
    }
    this.next += 1;
    const seconds = person.area === stop.area ? this.pace.walk : this.pace.walkFar;
    person.area = stop.area;
    person.walked += seconds;
    person.isFree = false;
    this.events.add(this.now + seconds, () => {
      person.isFree = true;
      person.stop = stop;
      person.since = this.now;
    });
    return true;
  }

  /** Begins the next part of a call, where it is this one's turn. */
  private canBegin(person: Person, call: Call): boolean {
    const part = call.work.parts[call.done];
    if (!part || part.busy === 'device' || this.hindranceOf(call) !== undefined) return false;
    const { factory } = call.work;
    if (factory !== undefined) this.held.set(factory, call);
    const laptop = part.busy === 'laptop' ? this.laptopFor(call.work.laptop) : undefined;
    const seconds = part.seconds + (laptop ? this.use(laptop, call.work.laptop) : 0);
    person.isFree = false;
    person.worked += seconds;
    call.isBusy = true;
    this.events.add(this.now + seconds, () => {
      person.isFree = true;
      if (laptop) laptop.users -= 1;
      this.end(call);
    });
    return true;
  }

  /** The one that is plugged in there, else the first that nobody needs where it is. */
  private laptopFor(place: string | undefined): Laptop | undefined {
    const there = this.laptops.find((one) => one.place === place || place === undefined);
    if (there) return there.isPlugged ? there : undefined;
    return this.laptops.find(
      (one) => one.users === 0 && one.isPlugged && !this.isNeeded(one.place),
    );
  }

  /** Somebody stands where a call can go on that needs it so. */
  private isNeeded(place: string | undefined): boolean {
    return this.people.some(({ stop }) =>
      stop?.byPlace.get(place)?.some((call) => !this.isFactoryTaken(call)),
    );
  }

  /** @returns what plugging it in takes */
  private use(laptop: Laptop, place: string | undefined): number {
    laptop.users += 1;
    if (place === undefined || laptop.place === place) return 0;
    laptop.place = place;
    laptop.isPlugged = false;
    this.events.add(this.now + this.pace.plug, () => (laptop.isPlugged = true));
    return this.pace.plug;
  }

  /** A part is done; what the device does by itself goes on without anybody. */
  private end(call: Call): void {
    call.isBusy = false;
    call.done += 1;
    const part = call.work.parts[call.done];
    if (part?.busy === 'device') {
      call.isBusy = true;
      this.events.add(this.now + part.seconds, () => this.end(call));
    }
    if (!isDone(call)) return;
    const { factory } = call.work;
    if (factory !== undefined) this.held.delete(factory);
    close(call);
  }

  /** What keeps the next part of a call from being begun; undefined where nothing does. */
  private hindranceOf(call: Call): WaitedFor | undefined {
    if (call.isBusy || isDone(call)) return 'device';
    const { laptop, parts } = call.work;
    if (this.isFactoryTaken(call)) return 'factory';
    if (parts[call.done]?.busy === 'laptop' && !this.laptopFor(laptop)) return 'laptop';
    return undefined;
  }

  /** Another fresh device has the address that this one comes with. */
  private isFactoryTaken(call: Call): boolean {
    const { factory } = call.work;
    const holder = factory === undefined ? undefined : this.held.get(factory);
    return holder !== undefined && holder !== call;
  }

  /** Whoever stands and waits does so for what the first call that is not done waits for. */
  private wait(seconds: number): void {
    for (const { stop, isFree, isGone, waited } of this.people) {
      if (!stop || !isFree || isGone) continue;
      const [first] = stop.open;
      const why = first ? this.hindranceOf(first) : undefined;
      if (why) waited[why] += seconds;
    }
  }
}

/** What happens when; of several at one time the one that was added first. */
class Agenda {
  private readonly byTime = new Map<number, (() => void)[]>();
  private readonly times: number[] = [];

  add(at: number, event: () => void): void {
    const known = this.byTime.get(at);
    if (known) known.push(event);
    else {
      this.byTime.set(at, [event]);
      this.insert(at);
    }
  }

  soonest(): number | undefined {
    return this.times[0];
  }

  take(at: number): readonly (() => void)[] {
    const events = this.byTime.get(at) ?? [];
    this.byTime.delete(at);
    this.times.shift();
    return events;
  }

  /** Few things go on at once: at most one for each person and each device that starts. */
  private insert(at: number): void {
    let place = this.times.length;
    while (place > 0 && (this.times[place - 1] ?? 0) > at) place -= 1;
    this.times.splice(place, 0, at);
  }
}
