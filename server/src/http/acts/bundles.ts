import type { bundleActs } from '@ipsonomo/contract';
import { visibleText } from '@ipsonomo/core/names';
import type { Handlers } from '../serve';
import type { Services } from '../services';

const nameOf = ({ name }: { readonly name?: string }): string =>
  visibleText(name ?? 'the file').slice(0, 200);

export const bundleHandlers = ({ bundles }: Services): Handlers<typeof bundleActs> => ({
  fetchBundle: ({ params }) => bundles.write(params.job),
  takeBundle: ({ params, query, body, actor }) =>
    bundles.take(body, nameOf(query), actor, params.job),
  takeNewBundle: ({ query, body, actor }) => bundles.take(body, nameOf(query), actor, undefined),
  readJoined: ({ params }) => bundles.joined(params.job),
  settleClash: ({ params, body, actor }) => bundles.settle(params.job, body, actor),
});
