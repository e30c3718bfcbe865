import type { Request } from 'express';
import Joi from 'joi';
import { WAITED_HEADERS, type AnyAct } from '@ipsonomo/contract';
import type { Waited } from '../common/waited';
import type { Actor } from '../service/actor';
import { Refusal } from '../store/refusal';
import { checked, nameOf } from './door';

/** So old may be what a browser kept, in milliseconds: nobody is in a shaft for longer than a year. */
const LONGEST = 365 * 24 * 3600 * 1000;

const WHOLE = Joi.string()
  .pattern(/^\d{1,15}$/, 'a whole number')
  .required();

const HEADERS = Joi.object({
  [WAITED_HEADERS.key]: Joi.string().guid().required(),
  [WAITED_HEADERS.doneAt]: WHOLE,
  [WAITED_HEADERS.sentAt]: WHOLE,
  [WAITED_HEADERS.place]: WHOLE,
  [WAITED_HEADERS.account]: Joi.string().guid(),
}).unknown();

/**
 * R-WAIT: what a browser kept and sends now; undefined of what is done as it is asked for. The two times are both of the browser's
 * clock, so that how wrong it goes makes no difference to how long ago it was.
 * @param now milliseconds since 1970, by the server's clock
 * @throws Refusal `waiting.ofAnother` where another account did it than the one that sends it
 */
export function waitedOf(
  request: Request,
  act: AnyAct,
  name: string,
  { now, actor }: { readonly now: number; readonly actor: Actor },
): Waited | undefined {
  if (!act.mayWait || request.header(WAITED_HEADERS.key) === undefined) return undefined;
  const told = checked(HEADERS, request.headers) as Readonly<Record<string, string>>;
  const doneAt = Number(told[WAITED_HEADERS.doneAt]);
  const sentAt = Number(told[WAITED_HEADERS.sentAt]);
  const account = told[WAITED_HEADERS.account]?.toLowerCase();
  if (account !== undefined && actor.account !== undefined && account !== actor.account.id)
    throw Refusal.of('waiting.ofAnother', '', { person: nameOf(request) });
  const ago = Math.min(LONGEST, Math.max(0, sentAt - doneAt));
  return {
    ...{ id: String(told[WAITED_HEADERS.key]).toLowerCase(), act: name },
    ...{ doneAt: now - ago, clockIsOff: sentAt - now, place: Number(told[WAITED_HEADERS.place]) },
  };
}
