import { isDeepStrictEqual } from 'node:util';
import type { ServersView, ServerView, SilencedView, WireElsewhere } from '@ipsonomo/core/api';
import { Turns } from '@ipsonomo/threads';
import type { News } from '../store/news-link';
import type { ServerRecord } from '../store/server-store';
import type { Store } from '../store/store';
import type { Actor } from './actor';
import type { JobWire } from './job-wire';
import type { TellNews } from './wire-threads';
import type { Wires } from './wires';

/** So often a server says that it is there. */
const BEAT = 5_000;
/** Whoever was not heard of for so long may be anywhere. */
const UNHEARD = 3 * BEAT;
/** What its wires do is told at most so often. */
const TELL_EVERY = 300;
/** So long it is waited for the others to say that they fell silent. */
const SILENT_WITHIN = 3_000;

export interface OwnServer {
  /** UUID; one folder is one server. */
  readonly id: string;
  /** What it is called until people call it something else. */
  readonly name: string;
}

interface ServersOf {
  readonly store: Pick<Store, 'servers'>;
  readonly own: OwnServer;
  readonly wires: Pick<Wires, 'open' | 'silence' | 'notice'>;
  readonly clock: () => number;
  /** Pages are told. */
  readonly told: (view: ServersView) => void;
}

/**
 * R-SERVERS: the servers that work with one database, each with wires of its own. What the others do is seen here and ended
 * there: nobody sends on a wire but the server that has it.
 */
export class Servers {
  private others: readonly ServerRecord[] = [];
  private ownName: string;
  private readAt = 0;
  private awaySince: number | undefined;
  private lastTold: unknown;
  private noted: readonly WireElsewhere[] = [];
  private readonly turns = new Turns();
  private telling: NodeJS.Timeout | undefined;
  private readonly beat = setInterval(() => void this.isHere(), BEAT);
  /** By the number of the question, who said that they fell silent. */
  private readonly silent = new Map<string, Set<string>>();

  constructor(private readonly of: ServersOf) {
    this.ownName = of.own.name;
    this.beat.unref();
  }

  async open(): Promise<void> {
    await this.of.store.servers.begin(this.of.own.id, this.of.own.name);
    await this.read();
  }

  view(): ServersView {
    const { own, clock } = this.of;
    const here: ServerView = {
      ...{ id: own.id, name: this.ownName, isOwn: true, state: 'there' },
      ...{ heardAt: clock(), wires: this.own() },
    };
    return {
      servers: [here, ...this.others.map((one) => this.viewOf(one))],
      databaseAwaySince: this.awaySince ?? null,
    };
  }

  /** A wire of this server told something. */
  wireNews(name: Parameters<TellNews>[0]): void {
    if (name !== 'field' && name !== 'wires') return;
    this.telling ??= setTimeout(() => {
      this.telling = undefined;
      void this.noteWires();
    }, TELL_EVERY);
  }

  async rename(name: string): Promise<ServersView> {
    await this.of.store.servers.rename(this.of.own.id, name);
    await this.read();
    return this.view();
  }

  /** Whether the database can be reached; what goes on here goes on all the same. */
  reached(isThere: boolean): void {
    this.awaySince = isThere ? undefined : (this.awaySince ?? this.of.clock());
    if (isThere) void this.isHere();
    this.tell();
  }

  /** Others changed something of themselves. */
  async changed(): Promise<void> {
    await this.read();
  }

  /** Nothing more is sent on any wire of any server: first here, then wherever it is heard. */
  async silenceEverywhere(actor: Actor): Promise<SilencedView> {
    await this.of.wires.silence();
    const asked = await this.of.store.servers.silence(actor.name);
    const who = this.silent.get(asked) ?? new Set<string>();
    this.silent.set(asked, who);
    await this.read();
    const running = this.others.filter(({ hasEnded }) => !hasEnded);
    const end = performance.now() + SILENT_WITHIN;
    while (running.some(({ id }) => !who.has(id)) && performance.now() < end)
      await new Promise((resolve) => setTimeout(resolve, 20));
    this.silent.delete(asked);
    const { own } = this.of;
    return {
      servers: [
        { id: own.id, name: this.ownName, isSilent: true },
        ...running.map(({ id, name }) => ({ id, name, isSilent: who.has(id) })),
      ],
    };
  }

  /** Somebody at another server asked everybody to fall silent, or another says that it did. */
  async askedToBeSilent({ id, serverId, body }: News): Promise<void> {
    const from = this.others.find((one) => one.id === serverId)?.name ?? '';
    const wereSending = this.of.wires.open.length > 0;
    await this.of.wires.silence();
    if (wereSending) this.of.wires.notice('silenced-from', { by: String(body['by']), from });
    await this.of.store.servers.silenced(id);
  }

  heardSilent({ serverId, body }: News): void {
    const asked = String(body['of']);
    // The answer may be quicker than the number of the question.
    const who = this.silent.get(asked) ?? new Set<string>();
    if (serverId !== null) who.add(serverId);
    this.silent.set(asked, who);
    setTimeout(() => this.silent.delete(asked), 2 * SILENT_WITHIN).unref();
  }

  async close(): Promise<void> {
    clearInterval(this.beat);
    clearTimeout(this.telling);
    await this.of.store.servers.end(this.of.own.id).catch(() => undefined);
  }

  private async isHere(): Promise<void> {
    try {
      if (isDeepStrictEqual(this.noted, this.own()))
        await this.of.store.servers.seen(this.of.own.id);
      else await this.noteWires();
      await this.read();
    } catch {
      // That it is away is told by whoever listens to it.
    }
  }

  /** One after the other: an older state must not be written over a newer one. */
  private noteWires(): Promise<void> {
    return this.turns.take(() => this.noteNow());
  }

  /** Where the database is away it is noted with the next beat. */
  private async noteNow(): Promise<void> {
    const now = this.own();
    if (isDeepStrictEqual(this.noted, now)) return;
    try {
      await this.of.store.servers.noteWires(this.of.own.id, now);
      this.noted = now;
    } catch {
      // With the next beat.
    }
    this.tell();
  }

  private async read(): Promise<void> {
    const all = await this.of.store.servers.all();
    this.readAt = this.of.clock();
    this.others = all.filter(({ id }) => id !== this.of.own.id);
    this.ownName = all.find(({ id }) => id === this.of.own.id)?.name ?? this.ownName;
    this.tell();
  }

  /** Pages are told where something is not as they know it; the time that passes is none of that. */
  private tell(): void {
    const view = this.view();
    const told = [view.databaseAwaySince, view.servers.map((one) => ({ ...one, heardAt: 0 }))];
    if (isDeepStrictEqual(told, this.lastTold)) return;
    this.lastTold = told;
    this.of.told(view);
  }

  private own(): readonly WireElsewhere[] {
    return this.of.wires.open.flatMap((wire) => elsewhereOf(wire, this.of.clock()));
  }

  private viewOf({ id, name, quietFor, hasEnded, wires }: ServerRecord): ServerView {
    const quiet = quietFor + this.of.clock() - this.readAt;
    const state = hasEnded ? 'ended' : quiet > UNHEARD ? 'unheard' : 'there';
    return { id, name, isOwn: false, state, heardAt: Math.round(this.readAt - quietFor), wires };
  }
}

/** A wire on which something goes on, or that is an adapter's. */
function elsewhereOf({ jobId, status, listener }: JobWire, now: number): readonly WireElsewhere[] {
  const { source, answeringUntil: until, answers, tasks } = status;
  if (source === undefined) return [];
  return [
    {
      ...{ jobId, source, person: listener?.person ?? null, answers },
      answeringUntil: until !== undefined && until > now ? until : null,
      doing: [...new Set(tasks.map(({ kind }) => kind))],
    },
  ];
}
