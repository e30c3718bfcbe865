import type { wireActs } from '@ipsonomo/contract';
import { listAdapters } from '@ipsonomo/wire';
import { comesThrough } from '../guard';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const wireHandlers = ({ field, practice }: Services): Handlers<typeof wireActs> => ({
  readField: () => field.view(),
  listHeard: () => field.heard(),
  listStations: () => field.stations(),
  listPresent: () => field.present(),
  listAdapters: () => listAdapters(),
  chooseWire: async ({ body, actor, request }) => {
    await field.chooseWire(body, actor, (adapter) => comesThrough(adapter, request));
    return field.view();
  },
  readNotice: async ({ body }) => {
    await field.noticeRead(body.code, body.at);
    return field.view();
  },
  listen: async ({ body, actor }) => {
    await field.listen(body.jobId.toLowerCase(), actor);
    return field.view();
  },
  rest: async () => {
    await field.rest();
    return field.view();
  },
  arm: async ({ body, actor }) => {
    await field.arm(body.minutes, actor);
    return field.view();
  },
  here: ({ actor }) => field.here(actor.browser),
  silence: async () => {
    await field.silence();
    return field.view();
  },
  readCabinet: () => practice.act(undefined),
  actAtCabinet: ({ body }) => practice.act(body.action),
});
