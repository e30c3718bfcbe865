import type { IssueCode, IssueFamily } from '@ipsonomo/core/net';
import type { Key } from './keys';
import { thingId, uuid, type Schema, type Shape } from './shape';
import type { Views } from './views';

/**
 * What somebody needs to be allowed: to look; to change the plan; to assign (bind, say what was done); to send on a wire;
 * to keep the installation (people, wires). `door` is for whoever stands before it. Which role has which says `hasRight`.
 */
export type Right = 'door' | 'look' | 'plan' | 'assign' | 'send' | 'keep';

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE';

/** What stands in a path in place of `:name`. */
export const PARAMS = {
  job: uuid,
  list: uuid,
  proof: uuid,
  run: uuid,
  key: uuid,
  account: uuid,
  interface: thingId,
  paper: thingId,
  photo: thingId,
  package: uuid,
  format: thingId,
  mac: { type: 'string', maxLength: 40 },
  number: { type: 'string', pattern: '^\\d{1,9}$', description: 'a whole number' },
} as const satisfies Readonly<Record<string, Shape<string>>>;

export type Param = keyof typeof PARAMS;

/** `'/jobs/:job/edits'` → `'job'` */
export type ParamIn<P extends string> = P extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamIn<`/${Rest}`>
  : P extends `${string}:${infer Name}`
    ? Name
    : never;

type TypesOf<A extends AnyAct> = NonNullable<A['types']>;

/** The names of what stands in its path, in their order. */
export const paramsIn = ({ path }: { readonly path: string }): readonly Param[] =>
  [...path.matchAll(/:(\w+)/g)].map(([, name]) => name as Param);

export type ParamsOf<A extends AnyAct> = { readonly [K in ParamIn<A['path']>]: string };
export type QueryOf<A extends AnyAct> = TypesOf<A>['query'];
export type BodyOf<A extends AnyAct> = TypesOf<A>['body'];
export type AnswerOf<A extends AnyAct> = TypesOf<A>['answer'] extends keyof Views
  ? Views[TypesOf<A>['answer']]
  : TypesOf<A>['answer'];

/**
 * What goes along with an act that may have waited: its own number, by which it is done once however often it is sent
 * (draft-ietf-httpapi-idempotency-key-header), when it was done and when it is sent, both by the browser's clock in
 * milliseconds since 1970, and its place in the browser's own count.
 */
export const WAITED_HEADERS = {
  ...{ key: 'idempotency-key', doneAt: 'x-done-at', sentAt: 'x-sent-at', place: 'x-place' },
  /** The account that did it; whoever else sends it is refused. */
  account: 'x-account',
} as const;

/** A code of what is refused, or a family of codes. */
export type Refused = IssueCode | IssueFamily;

/** A file that is sent as it is. */
export interface FileBody {
  /** Its content type; whatever else it says it is, it is taken as bytes. */
  readonly file: string;
}

/** @param file its content type */
export const bytes = (file: string): Shape<'file'> & FileBody => ({ file });

/** A file that is answered: its content types. */
export interface FileAnswer {
  readonly file: string;
}

/** One thing that can be asked of the server. */
export interface Act<P extends string, Q, B, V> {
  readonly method: Method;
  /** Below `/api`, with `:name` for what stands in {@link PARAMS}. */
  readonly path: P;
  readonly right: Right;
  /** In a sentence, for whoever scripts against it. */
  readonly about: string;
  readonly query: Shape<Q> | undefined;
  readonly body: Shape<B> | undefined;
  /** The most bytes of a body where that is not a megabyte. */
  readonly most: string | undefined;
  readonly status: 200 | 201 | 202 | 204;
  /** The name of what is answered; undefined where nothing is. */
  readonly answer: V | FileAnswer | undefined;
  /** Codes of what may be refused, beside those that anything may be refused with. */
  readonly refusals: readonly Refused[];
  /** Under which name a page keeps the answer. */
  readonly key: ((params: Readonly<Record<string, string>>) => Key) | undefined;
  /** What a page has to read again after it. */
  readonly stale: ((params: Readonly<Record<string, string>>) => readonly Key[]) | undefined;
  /** Whether a browser without the server may keep it and send it later; done twice, it is done once. */
  readonly mayWait: boolean;
  /** Never there: what is sent and answered, for the compiler. */
  readonly types?: { readonly query: Q; readonly body: B; readonly answer: V };
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyAct = Act<any, any, any, any>;

type Given<P extends string> = { readonly [K in ParamIn<P>]: string };

interface Told<P extends string, Q, B> {
  readonly right: Right;
  readonly about: string;
  readonly query?: Shape<Q>;
  readonly body?: Shape<B>;
  readonly most?: string;
  readonly status?: 201 | 202;
  readonly refusals?: readonly Refused[];
  readonly key?: (params: Given<P>) => Key;
  readonly stale?: (params: Given<P>) => readonly Key[];
  readonly mayWait?: boolean;
}

/** Whatever is asked may be refused with these, or with a code of these families. */
export const COMMON_REFUSALS: readonly Refused[] = [
  ...(['thing.unknown', 'body', 'door', 'right', 'store', 'server', 'waiting'] as const),
  ...(['wire.ownWeb', 'wire.otherName'] as const),
];

/** Whether a code, or its family, is among what an act may be refused with. */
export const mayRefuse = ({ refusals }: AnyAct, code: string): boolean =>
  [...COMMON_REFUSALS, ...refusals].some((one) => code === one || code.startsWith(`${one}.`));

/** Whether bytes are sent and no JSON. */
export const isFile = (body: Schema | undefined): body is Schema & FileBody =>
  body !== undefined && 'file' in body;

function act<P extends string, Q, B, V>(
  method: Method,
  path: P,
  told: Told<P, Q, B>,
  answer: V | FileAnswer | undefined,
): Act<P, Q, B, V> {
  const { right, about, query, body, most, refusals = [], key, stale, mayWait = false } = told;
  const status = told.status ?? (answer === undefined ? 204 : 200);
  return {
    ...{ method, path, right, about, query, body, most, status, answer, refusals, mayWait },
    ...{ key: key as Act<P, Q, B, V>['key'], stale: stale as Act<P, Q, B, V>['stale'] },
  };
}

type Nothing = Record<never, never>;

/** Reads something; nothing is changed by it. */
export const reads = <P extends string, V extends keyof Views, Q = Nothing>(
  path: P,
  answer: V,
  told: Omit<Told<P, Q, undefined>, 'right' | 'body'> & { readonly right?: Right },
): Act<P, Q, undefined, V> =>
  act<P, Q, undefined, V>('GET', path, { right: 'look', ...told }, answer);

/** Reads a file. @param type its content type */
export const fetches = <P extends string, Q = Nothing>(
  path: P,
  type: string,
  told: Omit<Told<P, Q, undefined>, 'right' | 'body'>,
): Act<P, Q, undefined, FileAnswer> =>
  act<P, Q, undefined, FileAnswer>('GET', path, { right: 'look', ...told }, { file: type });

/** Does something, and answers with how it stands then. */
export const answers = <P extends string, V extends keyof Views, Q = Nothing, B = undefined>(
  path: P,
  answer: V,
  told: Told<P, Q, B>,
): Act<P, Q, B, V> => act<P, Q, B, V>('POST', path, told, answer);

/** Does something, and has nothing to say. */
export const does = <P extends string, Q = Nothing, B = undefined>(
  path: P,
  told: Told<P, Q, B>,
): Act<P, Q, B, undefined> => act<P, Q, B, undefined>('POST', path, told, undefined);

/** Changes one field of something that is there. */
export const changes = <P extends string, B>(
  path: P,
  told: Told<P, Nothing, B>,
): Act<P, Nothing, B, undefined> => act<P, Nothing, B, undefined>('PATCH', path, told, undefined);

/** Ends something, or takes it away. */
export const ends = <P extends string>(
  path: P,
  told: Told<P, Nothing, undefined>,
): Act<P, Nothing, undefined, undefined> =>
  act<P, Nothing, undefined, undefined>('DELETE', path, told, undefined);
