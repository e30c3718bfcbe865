import type { FieldTaskView } from './views';

// Several servers work with one database, each with the wires of the machine it runs on.

/** A wire of a server as the others see it. */
export interface WireElsewhere {
  readonly jobId: string;
  /** `practice`, `live:eth0` */
  readonly source: string;
  /** Who listens; null where nobody does. */
  readonly person: string | null;
  /** Milliseconds since 1970; null where nothing is answered. */
  readonly answeringUntil: number | null;
  /** Interfaces whose bound MACs are answered. */
  readonly answers: number;
  readonly doing: readonly FieldTaskView['kind'][];
}

export interface ServerView {
  readonly id: string;
  /** As its people call it: where it stands. */
  readonly name: string;
  /** It is the one that tells this. */
  readonly isOwn: boolean;
  /** It is there; it was not heard of for a while; it ended in order. */
  readonly state: 'there' | 'unheard' | 'ended';
  /** When it was heard of last, in milliseconds since 1970. */
  readonly heardAt: number;
  /** As it told last. */
  readonly wires: readonly WireElsewhere[];
}

export interface ServersView {
  readonly servers: readonly ServerView[];
  /** Since when this server has not reached the database, in milliseconds since 1970; null while it does. */
  readonly databaseAwaySince: number | null;
}

/** Who fell silent when everybody was asked to, and of whom nobody knows. */
export interface SilencedView {
  readonly servers: readonly {
    readonly id: string;
    readonly name: string;
    readonly isSilent: boolean;
  }[];
}
