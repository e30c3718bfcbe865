import type { Response } from 'express';
import type { fileActs } from '@ipsonomo/contract';
import { describeIn } from '../../descriptions/describe';
import { kindsElsewhere, takeKinds } from '../../service/kinds';
import { mediaTypeOf } from '../../service/papers';
import { fileNameOf } from '../file-name';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const fileHandlers = (services: Services): Handlers<typeof fileActs> => {
  const { importer, papers, readings, planWork, store, changer, changed } = services;
  const describeFile = describeIn(readings);
  return {
    sendList: async ({ params, query, body }) => ({
      id: await importer.begin(params.job, fileNameOf(query), body),
    }),
    readList: ({ params }) => importer.state(params.job, params.list),
    readListLines: ({ params, query }) =>
      importer.lines(params.job, params.list, Number(query.sheet)),
    previewList: ({ params, body }) => importer.preview(params.job, params.list, body),
    takeList: ({ params, body, actor }) => importer.take(params.job, params.list, body, actor),
    readReadings: () => ({ waiting: readings.waiting }),
    describe: ({ query, body }) => describeFile({ name: fileNameOf(query), bytes: body }),
    fetchKinds: ({ params }) => planWork.file({ kind: 'kinds', jobId: params.job }),
    readKindsElsewhere: ({ params }) => kindsElsewhere(store, params.job),
    takeKinds: ({ params, body, actor }) =>
      takeKinds({ store, papers, changer }, params.job, body, actor),
    takeKindsFromFile: async ({ params, body, actor }) => {
      const taken = await planWork.takeKinds(params.job, body, actor);
      changed(params.job);
      return taken;
    },
    keepPaper: ({ params, query, body }) => papers.add(params.job, fileNameOf(query), body),
    fetchPaper: async ({ params, query, response }) => {
      const bytes = await papers.read(params.job, params.paper);
      const name = fileNameOf(query);
      asPaper(response, name, mediaTypeOf(bytes));
      return { name, bytes };
    },
  };
};

/**
 * Whatever it is: it is shown or saved, and never run as a page of this server. A sandbox would keep the browser's own
 * reader from showing a PDF, which runs in one anyway.
 */
function asPaper(response: Response, name: string, type: string): void {
  if (type !== 'application/pdf')
    response.set('Content-Security-Policy', "sandbox; default-src 'none'");
  response.attachment(name);
  response
    .set('Content-Disposition', dispositionOf(response, type))
    .set('X-Content-Type-Options', 'nosniff')
    .type(type);
}

/** What a browser can show is shown, the rest is saved. */
function dispositionOf(response: Response, type: string): string {
  const header = String(response.get('Content-Disposition'));
  return type !== 'application/octet-stream' ? header.replace(/^attachment/, 'inline') : header;
}
