import type { bundleActs } from '@ipsonomo/contract';
import { fileNameOf } from '../file-name';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const bundleHandlers = ({ bundles }: Services): Handlers<typeof bundleActs> => ({
  fetchBundle: ({ params }) => bundles.write(params.job),
  takeBundle: ({ params, query, body, actor }) =>
    bundles.take(body, fileNameOf(query), actor, params.job),
  takeNewBundle: ({ query, body, actor }) =>
    bundles.take(body, fileNameOf(query), actor, undefined),
  readJoined: ({ params }) => bundles.joined(params.job),
  settleClash: ({ params, body, actor }) => bundles.settle(params.job, body, actor),
});
