type None = Readonly<Record<never, never>>;

/** What the wire, and the server, have to say to everybody: the facts of each notice. */
export interface NoticeFacts {
  readonly 'other-server': {
    readonly server: string;
    readonly mac?: string;
    readonly expected: string;
    /** The device of ours that it answered. */
    readonly answered?: string;
  };
  /** A client names a server that nobody has seen. */
  readonly 'server-named': { readonly server: string; readonly by: string };
  /** An expected one answers a device of ours, which is left to it. */
  readonly 'left-to-server': {
    readonly server: string;
    readonly mac?: string;
    readonly title: string;
  };
  /** Looked for, and none answered. */
  readonly 'no-other-server': { readonly seconds: number };
  readonly 'adapter-gone': { readonly source: string };
  readonly 'link-down': { readonly source: string };
  readonly 'page-lost': None;
  readonly 'voice-taken': { readonly address: string; readonly by: string };
  /** Somebody sends frames that cannot be read. */
  readonly unreadable: { readonly by: string; readonly why: string };
  /** Somebody answers a question that was not asked like that. */
  readonly 'other-question': { readonly by: string };
  readonly 'no-voice': { readonly subnet: string };
  /** A subnet has more addresses than are asked for. */
  readonly 'sweep-too-wide': {
    readonly subnet: string;
    readonly addresses: number;
    readonly most: number;
    readonly minutes: number;
  };
  readonly 'capture-full': None;
  readonly 'capture-gives-way': None;
  readonly 'disk-full': None;
  // What the server itself has to say of the wire.
  /** The plan was changed, and the wire could not be told. */
  readonly 'plan-untold': { readonly why: string };
  /** A person took the wire from another. */
  readonly 'wire-taken': { readonly by: string; readonly from: string; readonly what: string };
  /** A person at another server had everybody fall silent. */
  readonly 'silenced-from': { readonly by: string; readonly from: string };
  /** The server met what nobody foresaw, and was started again. */
  readonly 'server-fell': { readonly why: string };
  /** So did the thread of the wire. */
  readonly 'thread-fell': { readonly why: string };
}

export type NoticeCode = keyof NoticeFacts;

/** A notice without its time. */
export type NoticeTold = {
  readonly [C in NoticeCode]: { readonly code: C; readonly facts: NoticeFacts[C] };
}[NoticeCode];

/** Tells a notice. */
export type TellNotice = <C extends NoticeCode>(code: C, facts: NoticeFacts[C]) => void;
