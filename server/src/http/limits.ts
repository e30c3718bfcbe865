import type { Request, RequestHandler, Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { isMachine } from '../common/machine';
import { Refusal } from '../store/refusal';

const MINUTE = 60_000;
/** What one address may ask in a minute; a page of a busy site asks some two hundred times. */
const MOST_A_MINUTE = 6_000;
/** Requests that are being answered, streams aside. */
const MOST_AT_ONCE = 200;
/** Files that are being taken in: each may be in memory as a whole. */
const MOST_FILES = 12;
const MOST_PLANS = 1;

/** Whoever asks faster than any person and any page waits a little. The machine's own person is not counted. */
export const notTooFast = (most = MOST_A_MINUTE): RequestHandler =>
  rateLimit({
    windowMs: MINUTE,
    limit: most,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skip: isMachine,
    keyGenerator: (request) => request.socket.remoteAddress ?? 'nobody',
    handler: (_request, _response, next) => next(Refusal.of('door.slow', '', { seconds: 60 })),
  });

/** At most so many at once; the next one is asked to come again. */
function atMost(most: number, refusal: () => Refusal): RequestHandler {
  let underWay = 0;
  return (_request: Request, response: Response, next) => {
    if (underWay >= most) throw refusal();
    underWay += 1;
    response.once('close', () => (underWay -= 1));
    next();
  };
}

export const notTooMany = (most = MOST_AT_ONCE): RequestHandler => {
  const counted = atMost(most, () => Refusal.of('door.busy', ''));
  // A stream stays open by its nature, and is counted where it is opened.
  return (request, response, next) =>
    request.path === '/events' ? next() : counted(request, response, next);
};

export const fewFiles = (): RequestHandler =>
  atMost(MOST_FILES, () => Refusal.of('reading.busy', '', { count: MOST_FILES }));

export const fewPlans = (): RequestHandler =>
  atMost(MOST_PLANS, () => Refusal.of('reading.busy', '', { count: MOST_PLANS }));
