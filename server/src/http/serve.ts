import { json, raw, type Request, type RequestHandler, type Response, type Router } from 'express';
import { pipeline } from 'node:stream/promises';
import {
  isFile,
  mayRefuse,
  PARAMS,
  paramsIn,
  type ActName,
  type AnswerOf,
  type AnyAct,
  type BodyOf,
  type FileAnswer,
  type Param,
  type ParamsOf,
  type QueryOf,
} from '@ipsonomo/contract';
import { FieldRefusal } from '@ipsonomo/wire';
import type { Actor } from '../service/actor';
import type { OutFile } from '../service/plan-answers';
import { Refusal } from '../store/refusal';
import { checked } from './door';
import { joiOf } from './joi-of';
import { isLong, jsonBytes } from './json-pieces';
import type { Rights } from './rights';
import { waitedOf } from './waited';

/** What an act is given: all of it checked in its form. */
export interface Call<A extends AnyAct> {
  readonly params: ParamsOf<A>;
  readonly query: QueryOf<A>;
  readonly body: BodyOf<A> extends 'file' ? Buffer : BodyOf<A>;
  readonly actor: Actor;
  /** For the few that look at the connection itself. */
  readonly request: Request;
  readonly response: Response;
}

/** A file on its way out: whole, or piece by piece. */
export type Sent = OutFile | Streamed;

interface Streamed {
  readonly name: string;
  readonly pieces: AsyncIterable<Uint8Array>;
}

type Answered<A extends AnyAct> =
  AnswerOf<A> extends FileAnswer ? Sent : undefined extends AnswerOf<A> ? void : AnswerOf<A>;

export type Handler<A extends AnyAct> = (call: Call<A>) => Answered<A> | Promise<Answered<A>>;

/** A handler for each act of a group: the compiler finds the one that is missing. */
export type Handlers<G extends Readonly<Record<string, AnyAct>>> = {
  readonly [N in keyof G]: Handler<G[N]>;
};

/** What every act needs of the server. */
export interface Serving extends Rights {
  readonly actorOf: (request: Request) => Actor;
  /** Told of whoever decides something, before it is looked at. */
  readonly decides: (request: Request) => Promise<void>;
  /** Refuses a job that is not there. */
  readonly needsJob: (job: string) => Promise<unknown>;
  /** Told of a refusal that the contract does not name. */
  readonly unnamed: (act: string, code: string) => void;
  /** Told of whoever did something at a device. */
  readonly acted: (job: string, at: string, actor: Actor) => void;
  /** What stands before the body of an act is read, by its name. */
  readonly before?: Readonly<Partial<Record<ActName, readonly RequestHandler[]>>>;
}

/** Registers the acts of a group, each with its handler. */
export function serve<G extends Readonly<Record<string, AnyAct>>>(
  router: Router,
  group: G,
  handlers: Handlers<G>,
  serving: Serving,
): void {
  for (const [name, act] of Object.entries(group)) {
    const method = act.method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete';
    router[method](
      act.path as string,
      ...readersOf(act, serving, serving.before?.[name as ActName] ?? []),
      answering(name, act, handlers[name as keyof G] as unknown as Handler<AnyAct>, serving),
    );
  }
}

/** The right first, then the job: whoever may not is not told what is there, and nothing is read for what is not. */
function readersOf(
  act: AnyAct,
  { actorOf, may, maySend, decides, needsJob }: Serving,
  before: readonly RequestHandler[],
): readonly RequestHandler[] {
  const right: RequestHandler = async (request, _response, next) => {
    may(actorOf(request), act);
    if (act.right !== 'look' && act.right !== 'door') await decides(request);
    next();
  };
  const job: RequestHandler = async (request, _response, next) => {
    const id = paramOf(request, 'job');
    await needsJob(id);
    if (act.right === 'send') maySend(actorOf(request), id);
    next();
  };
  return [right, ...(paramsIn(act).includes('job') ? [job] : []), ...before, ...bodyReader(act)];
}

function bodyReader(act: AnyAct): readonly RequestHandler[] {
  if (!act.body) return [];
  const limit = act.most ?? '1mb';
  // A file is taken as the bytes it is, whatever it says it is.
  return [isFile(act.body) ? raw({ type: () => true, limit }) : json({ limit })];
}

const PARAM_CHECKS = Object.fromEntries(
  Object.entries(PARAMS).map(([name, schema]) => [name, joiOf(schema)]),
);

/** What cannot be an id is the id of nothing. */
function paramOf(request: Request, name: Param): string {
  const value = request.params[name];
  if (typeof value !== 'string' || PARAM_CHECKS[name]?.validate(value).error)
    throw Refusal.of('thing.unknown', name);
  // One spelling from the door on: the database would take any, and everybody else only one.
  return 'format' in PARAMS[name] ? value.toLowerCase() : value;
}

function answering(
  name: string,
  act: AnyAct,
  handler: Handler<AnyAct>,
  { actorOf, unnamed, acted }: Serving,
): RequestHandler {
  const names = paramsIn(act);
  const body = act.body && !isFile(act.body) ? joiOf(act.body) : undefined;
  // What a query has besides is nobody's business, a proxy's perhaps.
  const query = act.query ? joiOf({ ...act.query, additionalProperties: true }) : undefined;
  const given = (request: Request): unknown => {
    if (body) return checked(body, request.body);
    if (!act.body) return undefined;
    return Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
  };
  return async (request, response) => {
    const call = {
      params: Object.fromEntries(names.map((one) => [one, paramOf(request, one)])),
      query: query ? checked(query, request.query) : {},
      body: given(request) as never,
      actor: withWaited(request, act, name, actorOf(request)),
      ...{ request, response },
    } as Call<AnyAct>;
    const answer: unknown = await Promise.resolve()
      .then(() => handler(call))
      .catch((error: unknown) => {
        const code = codeOf(error);
        if (code !== undefined && !mayRefuse(act, code)) unnamed(name, code);
        throw error;
      });
    const { job, interface: at } = call.params as Readonly<Record<string, string | undefined>>;
    if (isDoing(act) && job !== undefined && at !== undefined) acted(job, at, call.actor);
    if (act.answer === undefined) response.status(act.status).end();
    else if (isFileAnswer(act)) await send(answer as Sent, act.answer.file, response);
    else await say(answer, response.status(act.status));
  };
}

/** Whether it is something that is done at a device, by whoever is at it. */
const isDoing = ({ right, method }: AnyAct): boolean =>
  method === 'POST' && (right === 'assign' || right === 'send');

const withWaited = (request: Request, act: AnyAct, name: string, actor: Actor): Actor => ({
  ...actor,
  waited: waitedOf(request, act, name, { now: Date.now(), actor }),
});

/** Of what was refused; undefined of what nobody foresaw. */
function codeOf(error: unknown): string | undefined {
  if (error instanceof Refusal) return error.issues[0]?.code;
  return error instanceof FieldRefusal ? error.code : undefined;
}

const isFileAnswer = (act: AnyAct): act is AnyAct & { readonly answer: FileAnswer } =>
  typeof act.answer === 'object';

/** @param type a content type; where any is possible, the handler has said which */
async function send(file: Sent, type: string, response: Response): Promise<void> {
  if (!response.hasHeader('Content-Disposition')) response.attachment(file.name);
  if (type !== '*/*') response.type(type.startsWith('text/') ? `${type}; charset=utf-8` : type);
  if ('bytes' in file) response.send(Buffer.from(file.bytes));
  else await download(file.pieces, response);
}

const say = async (answer: unknown, response: Response): Promise<void> =>
  isLong(answer) ? download(jsonBytes(answer), response.type('json')) : void response.json(answer);

/** To its end, or as far as whoever wanted it stays: nothing is left open either way. */
async function download(pieces: AsyncIterable<Uint8Array>, response: Response): Promise<void> {
  try {
    await pipeline(pieces, response);
  } catch (error) {
    if (!response.headersSent) throw error;
    response.destroy();
  }
}
