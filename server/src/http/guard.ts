import type { Request, RequestHandler } from 'express';
import { Refusal } from '../store/refusal';
import type { FieldService } from '../service/field-service';

/** The server's own address of a connection. */
export const cameInBy = (request: Pick<Request, 'socket'>): string =>
  (request.socket.localAddress ?? '').replace(/^::ffff:/, '');

/** Whether a connection came in through the adapter that is listened on. */
export const isThroughLiveAdapter = (
  field: FieldService,
  request: Pick<Request, 'socket'>,
): boolean => field.liveAdapter()?.addresses.includes(cameInBy(request)) === true;

/** The live adapter never carries the web page: a plant's devices have no business with it. */
export const notThroughLiveAdapter =
  (field: FieldService): RequestHandler =>
  (request, _response, next) => {
    if (isThroughLiveAdapter(field, request))
      throw Refusal.of('wire.ownWeb', '', { adapter: field.liveAdapter()?.name ?? '' });
    next();
  };

/** A page from elsewhere may not act here in a person's name: its Origin is not ours. */
export const sameOrigin: RequestHandler = (request, _response, next) => {
  const origin = request.header('origin');
  if (request.method === 'GET' || origin === undefined) return next();
  if (URL.canParse(origin) && new URL(origin).host === request.header('host')) return next();
  throw Refusal.of('body.invalid', 'origin', { why: 'is another site' });
};
