import type { wireActs } from '@ipsonomo/contract';
import { Refusal } from '../../store/refusal';
import { comesThrough } from '../guard';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const wireHandlers = ({ wires }: Services): Handlers<typeof wireActs> => {
  /** Does something with the wire of a job, and tells how it stands then. */
  const then = async (jobId: string, done: Promise<void>) => {
    await done;
    return wires.view(jobId);
  };
  return {
    readField: ({ params }) => wires.view(params.job),
    listHeard: ({ params }) => wires.at(params.job).heard(),
    listStations: ({ params }) => wires.at(params.job).stations(),
    listPresent: ({ params }) => wires.at(params.job).present(),
    listAdapters: () => wires.adapters(),
    listWires: () => wires.views(),
    chooseWire: ({ params, body, actor, request }) => {
      if (body.kind === 'live' && comesThrough(body.adapter, request))
        throw Refusal.of('wire.ownWeb', '', { adapter: body.adapter });
      return then(params.job, wires.at(params.job).choose(body, actor));
    },
    readNotice: ({ params, body }) =>
      then(params.job, wires.noticeRead(params.job, body.code, body.at)),
    listen: ({ params, actor }) => then(params.job, wires.at(params.job).listen(actor)),
    rest: ({ params }) => then(params.job, wires.at(params.job).rest()),
    arm: ({ params, body, actor }) =>
      then(params.job, wires.at(params.job).arm(body.minutes, actor)),
    here: ({ actor }) => wires.here(actor.browser),
    silence: ({ params }) => then(params.job, wires.at(params.job).silence()),
    silenceAll: () => wires.silence(),
    readCabinet: ({ params }) => wires.at(params.job).atCabinet(undefined),
    actAtCabinet: ({ params, body }) => wires.at(params.job).atCabinet(body.action),
  };
};
