import type { wireActs } from '@ipsonomo/contract';
import type { Actor } from '../../service/actor';
import { OWN_GRANT } from '../../service/people';
import { Refusal } from '../../store/refusal';
import { comesThrough } from '../guard';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const wireHandlers = ({ people, servers, wires }: Services): Handlers<typeof wireActs> => {
  /** An adapter is a keeper's to choose, or of whoever was let send on it. */
  const needAdapter = ({ account }: Actor, job: string, adapter: string) => {
    if (!account || account.role === 'keep' || people.maySend(account.id, job, adapter)) return;
    throw Refusal.of('right.missing', '', { need: 'keep', have: account.role });
  };
  /** A keeper who chose it may send on it, for as long as a shift is. */
  const letOwn = async ({ account, name }: Actor, job: string, adapter: string) => {
    if (account?.role !== 'keep') return;
    await people.letSend(account.id, job, adapter, Date.now() + OWN_GRANT, name);
  };
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
      if (body.kind !== 'live') return then(params.job, wires.at(params.job).choose(body, actor));
      needAdapter(actor, params.job, body.adapter);
      const chosen = wires.at(params.job).choose(body, actor);
      return then(
        params.job,
        chosen.then(() => letOwn(actor, params.job, body.adapter)),
      );
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
    listServers: () => servers.view(),
    nameServer: ({ body }) => servers.rename(body.name),
    silenceEverywhere: ({ actor }) => servers.silenceEverywhere(actor),
    readCabinet: ({ params }) => wires.at(params.job).atCabinet(undefined),
    actAtCabinet: ({ params, body }) => wires.at(params.job).atCabinet(body.action),
  };
};
