import type { proofActs } from '@ipsonomo/contract';
import { hasCapture, readCapture } from '@ipsonomo/wire';
import { Refusal } from '../../store/refusal';
import type { Handlers } from '../serve';
import type { Services } from '../services';

export const proofHandlers = (services: Services): Handlers<typeof proofActs> => {
  const { proofs, vigils, wires, planWork, captures } = services;
  return {
    listProofs: ({ params }) => proofs.list(params.job),
    readProof: ({ params }) => proofs.one(params.job, params.proof),
    beginProof: async ({ params, body, actor }) => ({
      id: await proofs.begin(params.job, body, actor),
    }),
    goOnProof: ({ params, body, actor }) =>
      proofs.goOn(params.job, params.proof, body.perSecond, actor),
    stopProof: ({ params }) => proofs.stop(params.job),
    readVigil: ({ params }) => vigils.view(params.job),
    beginVigil: ({ params, body, actor }) => vigils.begin(params.job, body, actor),
    endVigil: ({ params }) => vigils.end(params.job),
    fetchVigil: async ({ params }) => ({
      name: 'vigil.csv',
      bytes: Buffer.from(await vigils.csv(params.job)),
    }),
    fetchPlanFile: ({ params, query }) => {
      const withPapers = query.papers !== 'named';
      return planWork.file({ kind: 'plan', jobId: params.job, withPapers });
    },
    listRuns: ({ params }) => wires.at(params.job).runs(),
    fetchCapture: async ({ params }) => {
      const runs = await wires.at(params.job).runs();
      if (!runs.some(({ id }) => id === params.run) || !hasCapture(captures, params.run))
        throw Refusal.of('thing.unknown', 'capture');
      return { name: `${params.run}.pcap`, pieces: readCapture(captures, params.run) };
    },
  };
};
