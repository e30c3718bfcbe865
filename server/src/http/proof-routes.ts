import { Router } from 'express';
import { checked, idOf, personOf } from './door';
import type { Services } from './routes';
import * as schema from './schemas';

/** Runs of proofs. */
export function proofRoutes({ proofs }: Services): Router {
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
  router.delete('/jobs/:job/proof', async (_request, response) => {
    await proofs.stop();
    response.status(204).end();
  });
  return router;
}
