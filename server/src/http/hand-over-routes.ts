import { pipeline } from 'node:stream/promises';
import { Router, type Response } from 'express';
import { hasCapture, readCapture } from '../field/capture';
import type { OutFile } from '../service/plan-answers';
import { noteHandOver } from '../service/hand-over';
import { Refusal } from '../store/refusal';
import { idOf, personOf } from './door';
import type { Services } from './routes';

export function handOverRoutes({ store, planWork, field, captures, changed }: Services): Router {
  const router = Router();
  router.get('/jobs/:job/addresses.csv', async (request, response) => {
    const file = await planWork.file({ kind: 'addresses', jobId: idOf(request, 'job') });
    sendFile(response, file, 'text/csv; charset=utf-8');
  });
  router.get('/jobs/:job/dhcp.conf', async (request, response) => {
    const file = await planWork.file({ kind: 'dhcp', jobId: idOf(request, 'job') });
    sendFile(response, file, 'text/plain; charset=utf-8');
  });
  router.get('/jobs/:job/plan.json', async (request, response) => {
    const withPapers = request.query['papers'] !== 'named';
    const file = await planWork.file({ kind: 'plan', jobId: idOf(request, 'job'), withPapers });
    sendFile(response, file, 'application/json; charset=utf-8');
  });
  router.post('/jobs/:job/hand-overs', async (request, response) => {
    await noteHandOver(store, idOf(request, 'job'), personOf(request));
    changed(idOf(request, 'job'));
    response.status(204).end();
  });
  router.get('/jobs/:job/runs', async (request, response) => {
    response.json(await field.runs(idOf(request, 'job')));
  });
  router.get('/jobs/:job/runs/:run/capture.pcap', async (request, response) => {
    const id = idOf(request, 'run');
    const runs = await field.runs(idOf(request, 'job'));
    if (!runs.some((run) => run.id === id) || !hasCapture(captures, id))
      throw Refusal.of('thing.unknown', 'capture');
    response.attachment(`${id}.pcap`).type('application/vnd.tcpdump.pcap');
    await download(readCapture(captures, id), response);
  });
  return router;
}

const sendFile = (response: Response, { name, bytes }: OutFile, type: string): void => {
  response.attachment(name).type(type).send(Buffer.from(bytes));
};

/** To its end, or as far as whoever wanted it stays: nothing is left open either way. */
async function download(pieces: AsyncIterable<Uint8Array>, response: Response): Promise<void> {
  try {
    await pipeline(pieces, response);
  } catch (error) {
    if (!response.headersSent) throw error;
    response.destroy();
  }
}
