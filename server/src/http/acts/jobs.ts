import { hasRight, type jobActs } from '@ipsonomo/contract';
import type { JsonObject } from '@ipsonomo/core/plan';
import { deleteJob, wholeJob } from '../../service/whole-job';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const jobHandlers = (services: Services): Handlers<typeof jobActs> => {
  const { reader, summaries, changer, planWork, rounds, store, changed, wires } = services;
  return {
    listJobs: () => summaries.list(),
    addJob: async ({ body }) => ({ id: await changer.addJob(body.name) }),
    addJobFromFile: async ({ body, actor }) => {
      const id = await planWork.jobFromPlan(body, actor);
      changed(id);
      return { id };
    },
    renameJob: ({ params, body }) => changer.renameJob(params.job, body.name),
    archiveJob: async ({ params, body }) => {
      if (body.archived) await wires.at(params.job).end();
      await store.archiveJob(params.job, body.archived);
      changed(params.job);
    },
    fetchWholeJob: ({ params, actor: { account } }) =>
      wholeJob(services, params.job, !account || hasRight(account.role, 'keep')),
    deleteJob: async ({ params, body }) => {
      const endWire = () => wires.at(params.job).end();
      await deleteJob(services, params.job, body.name, endWire);
      changed(params.job);
    },
    readPlan: ({ params }) => reader.plan(params.job),
    readProgress: ({ params, query }) => reader.progress(params.job, query.since),
    readRound: ({ params, query }) => rounds.of(params.job, query.since),
    timeRound: async ({ params, body }) =>
      planWork.roundTimes(params.job, {
        people: body.people,
        ...(body.order ? { order: body.order } : { among: await rounds.orderOf(params.job) }),
      }),
    readEdits: ({ params, query }) => reader.editsSince(params.job, Number(query.since)),
    edit: ({ params, body, actor }) =>
      changer.edit(params.job, body.edits as unknown as readonly JsonObject[], body.why, actor),
    undo: ({ params, actor }) => changer.undo(params.job, actor),
    redo: ({ params, actor }) => changer.redo(params.job, actor),
    listRevisions: ({ params }) => reader.revisions(params.job),
    nameRevision: ({ params, body }) =>
      changer.nameRevision(params.job, Number(params.number), body.name),
    addSubnet: async ({ params, body, actor }) => ({
      id: await changer.addSubnet(params.job, body, actor),
    }),
  };
};
