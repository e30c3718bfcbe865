import { Router } from 'express';
import { checked, idOf, personOf } from './door';
import type { Services } from './routes';
import * as schema from './schemas';

/** Runs of proofs, and vigils. */
export function proofRoutes({ proofs, vigils, field }: Services): Router {
  const router = Router();
  router.get('/jobs/:job/proofs', async (request, response) => {
    response.json(await proofs.list(idOf(request, 'job')));
  });
  router.get('/jobs/:job/proofs/:proof', async (request, response) => {
    response.json(await proofs.one(idOf(request, 'job'), idOf(request, 'proof')));
  });
  router.post('/jobs/:job/proofs', async (request, response) => {
    const wish = checked(schema.proofWish, request.body);
    const id = await proofs.begin(idOf(request, 'job'), wish, personOf(request));
    response.status(201).json({ id });
  });
  router.post('/jobs/:job/proofs/:proof/go-on', async (request, response) => {
    const { perSecond } = checked(schema.proofPace, request.body);
    const ids = [idOf(request, 'job'), idOf(request, 'proof')] as const;
    await proofs.goOn(...ids, perSecond, personOf(request));
    response.status(204).end();
  });
  router.delete('/jobs/:job/proof', async (request, response) => {
    field.needsJob(idOf(request, 'job'));
    await proofs.stop();
    response.status(204).end();
  });
  router.get('/jobs/:job/vigil', (request, response) => {
    response.json(vigils.view(idOf(request, 'job')));
  });
  router.post('/jobs/:job/vigil', async (request, response) => {
    const wish = checked(schema.vigilWish, request.body);
    await vigils.begin(idOf(request, 'job'), wish, personOf(request));
    response.status(202).end();
  });
  router.delete('/jobs/:job/vigil', async (request, response) => {
    field.needsJob(idOf(request, 'job'));
    await vigils.end();
    response.status(204).end();
  });
  router.get('/jobs/:job/vigil.csv', async (request, response) => {
    const csv = await vigils.csv(idOf(request, 'job'));
    response.attachment('vigil.csv').type('text/csv; charset=utf-8').send(csv);
  });
  return router;
}
