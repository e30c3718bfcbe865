import { SERVER_WORDS } from '@ipsonomo/language/terminal';
import { Router } from 'express';
import {
  assignActs,
  bundleActs,
  doorActs,
  fileActs,
  handOverActs,
  houseActs,
  jobActs,
  peopleActs,
  proofActs,
  rehearsalActs,
  wireActs,
  type AnyAct,
} from '@ipsonomo/contract';
import type { Actor } from '../service/actor';
import { Refusal } from '../store/refusal';
import { assignHandlers } from './acts/assign';
import { bundleHandlers } from './acts/bundles';
import { doorHandlers } from './acts/door';
import { houseHandlers } from './acts/house';
import { fileHandlers } from './acts/files';
import { handOverHandlers } from './acts/hand-over';
import { jobHandlers } from './acts/jobs';
import { peopleHandlers } from './acts/people';
import { proofHandlers } from './acts/proofs';
import { rehearsalHandlers } from './acts/rehearsals';
import { wireHandlers } from './acts/wire';
import { actorIn, namedIn, onlyLetIn, slowly } from './browsers';
import { sameOrigin } from './guard';
import { fewFiles, fewPlans, notTooFast, notTooMany } from './limits';
import { rightsIn } from './rights';
import { serve, type Handlers } from './serve';
import type { Services } from './services';

/** Everything that can be asked: the acts of the contract, and the stream of news. */
export function apiOf(services: Services, log: (line: string) => void): Router {
  const { door, events, people, rehearsals, store, takenCalls, wires } = services;
  const api = Router();
  const actorOf = actorIn(door, people);
  // All files together, whichever kind.
  const files = [fewFiles()];
  const plans = [fewPlans()];
  const before = {
    ...{ enter: [slowly()], signIn: [slowly()], addJobFromFile: plans, takeKindsFromFile: plans },
    ...{ sendList: files, describe: files, keepPaper: files },
    ...{ takeBundle: plans, takeNewBundle: plans },
  };
  const serving = {
    ...{ actorOf, before, ...rightsIn(services), decides: namedIn(door, people) },
    // A job whose wire is open is there: its wire can be ended while the database is away.
    needsJob: async (job: string) => {
      if (wires.has(job)) return;
      await store.job(job);
      await rehearsals.lookUp(job);
    },
    // Who was at it is nothing that an act fails for.
    acted: (job: string, at: string, actor: Actor) =>
      void takenCalls.acted(job, at, actor).catch(() => undefined),
    unnamed: (act: string, code: string) => log(SERVER_WORDS.refusesUnnamed({ act, code })),
  };
  const register = <G extends Readonly<Record<string, AnyAct>>>(group: G, by: Handlers<G>) =>
    serve(api, group, by, serving);
  api.use(notTooMany());
  api.use(notTooFast());
  api.use(sameOrigin);
  // The one thing that answers those who were not let in.
  register(doorActs, doorHandlers(services));
  api.use(onlyLetIn(door, people));
  register(houseActs, houseHandlers(services));
  api.get('/events', events.handler(actorOf));
  register(peopleActs, peopleHandlers(services));
  register(jobActs, jobHandlers(services));
  register(bundleActs, bundleHandlers(services));
  register(fileActs, fileHandlers(services));
  register(assignActs, assignHandlers(services));
  register(proofActs, proofHandlers(services));
  register(handOverActs, handOverHandlers(services));
  register(wireActs, wireHandlers(services));
  register(rehearsalActs, rehearsalHandlers(services));
  api.use(() => {
    throw Refusal.of('thing.unknown', 'address');
  });
  return api;
}
