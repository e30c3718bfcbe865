import type { Request, Response } from 'express';
import type { handOverActs } from '@ipsonomo/contract';
import { FORMATS, WHOLE_JOB, type FormatId } from '@ipsonomo/core/api';
import { Refusal } from '../../store/refusal';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const handOverHandlers = (services: Services): Handlers<typeof handOverActs> => {
  const { packages, store, changed } = services;
  const send = async (jobId: string, made: string, response: Response) => {
    const file = await packages.read(jobId, made);
    // A proof is opened by programs, not run as a page of this server.
    response.set('X-Content-Type-Options', 'nosniff').attachment(file.name);
    return file;
  };
  return {
    beginPackage: ({ params, body, actor, request }) => ({
      id: packages.begin({
        ...{ jobId: params.job, wish: body, person: actor.name, origin: originOf(request) },
      }),
    }),
    readPackage: ({ params }) => packages.state(params.job, params.package),
    fetchPackage: ({ params, response }) => send(params.job, params.package, response),
    endPackage: ({ params }) => packages.end(params.job, params.package),
    fetchFormat: ({ params, query, actor, request, response }) => {
      const wish = {
        formats: [formatIn(params.format)],
        scope: query.interface ? { ...WHOLE_JOB, interfaces: [query.interface] } : WHOLE_JOB,
        despite: query.despite === 'yes',
      };
      const origin = originOf(request);
      const made = packages.begin({ jobId: params.job, wish, person: actor.name, origin });
      return send(params.job, made, response);
    },
    listWrittenTicks: ({ params }) => store.evidence.writtenTicks(params.job),
    listHandOvers: ({ params }) => store.handOvers(params.job),
    noteHandOver: async ({ params, body, actor }) => {
      const { last: revision } = await store.revisions(params.job);
      await store.addHandOver(params.job, { ...body, revision, person: actor.name });
      changed(params.job);
    },
  };
};

/** Where whoever asks has opened this installation. */
const originOf = (request: Request): string => `${request.protocol}://${request.get('host') ?? ''}`;

function formatIn(word: string): FormatId {
  const format = FORMATS.find((one) => one === word);
  if (!format) throw Refusal.of('thing.unknown', 'format');
  return format;
}
