import type { ProofWish, VigilWish } from '@ipsonomo/core/api';
import { answers, does, ends, fetches, reads } from '../act';
import { keys } from '../keys';
import { choice, either, number, object, text, thingId, whole, type Shape } from '../shape';
import { ofJob } from './jobs';

const scope: Shape<ProofWish['scope']> = either(
  object({ kind: choice('job') }),
  object({ kind: choice('subnet'), subnetId: thingId }),
  object({ kind: choice('cabinet'), cabinet: text(40) }),
  object({ kind: choice('interface'), interfaceId: thingId }),
);
const perSecond = whole(20, 1000);

const proofWish: Shape<ProofWish> = object({ scope, perSecond });
const vigilWish: Shape<VigilWish> = object({
  scope,
  everySeconds: whole(1, 600),
  minutes: number(0.05, 1440),
});

const sending = { right: 'send', stale: ofJob } as const;
const WIRE = ['wire', 'field'] as const;

/** Proofs, vigils, and what leaves of a job as files. */
export const proofActs = {
  listProofs: reads('/jobs/:job/proofs', 'Proofs', {
    about: 'All runs of proofs, the newest first.',
    key: ({ job }) => keys.proofs(job),
  }),
  readProof: reads('/jobs/:job/proofs/:proof', 'Proof', {
    about: 'One run with all that it found.',
    key: ({ job, proof }) => keys.proof(job, proof),
  }),
  beginProof: answers('/jobs/:job/proofs', 'Added', {
    about: 'Proves devices, and looks for everybody else on the wire.',
    ...{ ...sending, status: 201, body: proofWish, refusals: [...WIRE, 'proof'] },
  }),
  goOnProof: does('/jobs/:job/proofs/:proof/go-on', {
    about: 'Asks for what a run has not asked for yet.',
    ...{ ...sending, body: object({ perSecond }), refusals: [...WIRE, 'proof'] },
  }),
  stopProof: ends('/jobs/:job/proof', {
    ...{ about: 'Ends the run that goes on.', ...sending, refusals: WIRE },
  }),
  readVigil: reads('/jobs/:job/vigil', 'Vigil', {
    about: 'The vigil that goes on, or the last one.',
    key: ({ job }) => keys.vigil(job),
  }),
  beginVigil: does('/jobs/:job/vigil', {
    about: 'Asks devices in a steady beat.',
    ...{ ...sending, status: 202, body: vigilWish, refusals: [...WIRE, 'vigil', 'proof'] },
  }),
  endVigil: ends('/jobs/:job/vigil', {
    ...{ about: 'Ends the vigil that goes on.', ...sending, refusals: WIRE },
  }),
  fetchVigil: fetches('/jobs/:job/vigil.csv', 'text/csv', {
    about: 'The vigil, beat by beat.',
    refusals: ['vigil'],
  }),
  fetchPlanFile: fetches('/jobs/:job/plan.json', 'application/json', {
    about: 'The plan file, with its papers or with their names alone.',
    query: object({}, { papers: choice('named', 'inside') }),
    refusals: ['paper'],
  }),
  listRuns: reads('/jobs/:job/runs', 'Runs', {
    about: 'When Ipsonomo listened for this job, and on which wire.',
    key: ({ job }) => keys.runs(job),
  }),
  fetchCapture: fetches('/jobs/:job/runs/:run/capture.pcap', 'application/vnd.tcpdump.pcap', {
    about: 'What was captured in a run; also while it goes on.',
  }),
} as const;
