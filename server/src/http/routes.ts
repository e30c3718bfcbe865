import { json, raw, Router, type Request, type Response } from 'express';
import { parseMac, visibleText } from '@ipsonomo/core';
import type { Readings } from '../common/readings';
import { describeIn } from '../descriptions/describe';
import { listAdapters } from '../field/adapters';
import type { Practice } from '../field/practice';
import type { OpenedAt } from '../pages/relay';
import type { PlanChanger } from '../service/change-plan';
import type { FieldService } from '../service/field-service';
import type { PlanWork } from '../service/plan-work';
import type { ListImporter } from '../service/import-list';
import { mediaTypeOf, type Papers } from '../service/papers';
import type { Proofs } from '../service/proofs';
import type { JobSummaries } from '../service/job-summaries';
import type { PlanReader } from '../service/read-plan';
import type { Rounds } from '../service/round';
import type { Vigils } from '../service/vigils';
import { must } from '../store/refusal';
import type { Store } from '../store/store';
import type { Door } from '../service/door';
import { browserIn } from './door-routes';
import { checked, idOf, personOf, thingIdOf, wholeNumber } from './door';
import { comesThrough } from './guard';
import { fewFiles, fewPlans } from './limits';
import * as schema from './schemas';

export interface Services {
  readonly door: Door;
  readonly store: Store;
  readonly reader: PlanReader;
  readonly changer: PlanChanger;
  readonly importer: ListImporter;
  readonly papers: Papers;
  readonly readings: Readings;
  readonly rounds: Rounds;
  readonly summaries: JobSummaries;
  readonly field: FieldService;
  readonly proofs: Proofs;
  readonly vigils: Vigils;
  readonly practice: Practice;
  readonly planWork: PlanWork;
  readonly captures: string;
  /** Makes a place at which the page of a device that is open is read, by one browser. */
  readonly openPage: (browser: string | undefined) => Promise<OpenedAt>;
  /** Tells open pages that a job is not what it was. */
  readonly changed: (jobId: string) => void;
}

/** A plan of 50,000 devices is about 40 MB; 100 MB of papers are 134 in base64. */
const MOST_FILE = '200mb';

/** What a page has already, as it was told it. */
const markOf = ({ query }: Request): string | undefined =>
  typeof query['since'] === 'string' ? query['since'] : undefined;

export function planRoutes({
  reader,
  summaries,
  changer,
  planWork,
  rounds,
  changed,
}: Services): Router {
  const router = Router();
  router.get('/jobs', async (_request, response) => {
    response.json(await summaries.list());
  });
  router.post('/jobs', async (request, response) => {
    const { name } = checked(schema.newJob, request.body);
    response.status(201).json({ id: await changer.addJob(name) });
  });
  router.post('/jobs/from-file', fewPlans(), asBytes(MOST_FILE), async (request, response) => {
    const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const id = await planWork.jobFromPlan(bytes, personOf(request));
    changed(id);
    response.status(201).json({ id });
  });
  router.get('/jobs/:job', async (request, response) => {
    response.json(await reader.job(idOf(request, 'job')));
  });
  router.get('/jobs/:job/plan', async (request, response) => {
    response.json(await reader.plan(idOf(request, 'job')));
  });
  router.get('/jobs/:job/progress', async (request, response) => {
    response.json(await reader.progress(idOf(request, 'job'), markOf(request)));
  });
  router.get('/jobs/:job/round', async (request, response) => {
    response.json(await rounds.of(idOf(request, 'job'), markOf(request)));
  });
  router.get('/jobs/:job/edits', async (request, response) => {
    const since = wholeNumber(request.query['since'], 'since');
    response.json(await reader.editsSince(idOf(request, 'job'), since));
  });
  router.post('/jobs/:job/edits', async (request, response) => {
    const { edits, why } = checked(schema.newEdits, request.body);
    response.json(await changer.edit(idOf(request, 'job'), edits, why, personOf(request)));
  });
  for (const act of ['undo', 'redo'] as const)
    router.post(`/jobs/:job/${act}`, async (request, response) => {
      response.json(await changer[act](idOf(request, 'job'), personOf(request)));
    });
  router.get('/jobs/:job/revisions', async (request, response) => {
    response.json(await reader.revisions(idOf(request, 'job')));
  });
  router.patch('/jobs/:job/revisions/:number', async (request, response) => {
    const { name } = checked(schema.revisionName, request.body);
    const number = wholeNumber(request.params['number'], 'number');
    await changer.nameRevision(idOf(request, 'job'), number, name);
    response.status(204).end();
  });
  router.post('/jobs/:job/subnets', async (request, response) => {
    const wanted = checked(schema.newSubnet, request.body);
    const id = await changer.addSubnet(idOf(request, 'job'), wanted, personOf(request));
    response.status(201).json({ id });
  });
  router.post('/jobs/:job/devices', async (request, response) => {
    const { devices } = checked(schema.newDevices, request.body);
    const ids = await changer.addDevices(idOf(request, 'job'), devices, personOf(request));
    response.status(201).json({ ids });
  });
  router.patch('/jobs/:job/devices/:device', async (request, response) => {
    const change = checked(schema.deviceChange, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'device')] as const;
    await changer.changeDevice(...ids, change, personOf(request));
    response.status(204).end();
  });
  router.delete('/jobs/:job/devices/:device', async (request, response) => {
    const ids = [idOf(request, 'job'), thingIdOf(request, 'device')] as const;
    await changer.removeDevice(...ids, personOf(request));
    response.status(204).end();
  });
  return router;
}

/** A workbook of 60,000 lines is smaller; what is larger is no list of devices. */
const MOST_LIST = '24mb';

/** All of them together, whichever kind. */
const files = fewFiles();

const asBytes = (limit: string) => raw({ type: () => true, limit });

/** A file that came as the body of a request, whatever it says it is. */
function fileOf(request: Request): { readonly name: string; readonly bytes: Buffer } {
  const given = request.query['name'];
  const name = visibleText(typeof given === 'string' ? given : 'file').slice(0, 200);
  return { name, bytes: Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0) };
}

export function listRoutes({ importer }: Services): Router {
  const router = Router();
  router.post('/jobs/:job/lists', files, asBytes(MOST_LIST), async (request, response) => {
    const { name, bytes } = fileOf(request);
    response.status(201).json({ id: await importer.begin(idOf(request, 'job'), name, bytes) });
  });
  router.get('/jobs/:job/lists/:list', (request, response) => {
    response.json(importer.state(idOf(request, 'job'), idOf(request, 'list')));
  });
  router.get('/jobs/:job/lists/:list/lines', async (request, response) => {
    const { sheet } = checked(schema.listSheet, {
      sheet: wholeNumber(request.query['sheet'], 'sheet'),
    });
    const ids = [idOf(request, 'job'), idOf(request, 'list')] as const;
    response.json(await importer.lines(...ids, sheet));
  });
  router.post('/jobs/:job/lists/:list/preview', json(), async (request, response) => {
    const taking = checked(schema.listTaking, request.body);
    const ids = [idOf(request, 'job'), idOf(request, 'list')] as const;
    response.json(await importer.preview(...ids, taking));
  });
  router.post('/jobs/:job/lists/:list/take', json(), async (request, response) => {
    const taking = checked(schema.listTaking, request.body);
    const ids = [idOf(request, 'job'), idOf(request, 'list')] as const;
    response.json(await importer.take(...ids, taking, personOf(request)));
  });
  return router;
}

const MOST_PAPER_BODY = '21mb';

export function paperRoutes({ store, papers, readings }: Services): Router {
  const router = Router();
  const describeFile = describeIn(readings);
  /** Files that wait to be read, whoever sent them. */
  router.get('/readings', (_request, response) => {
    response.json({ waiting: readings.waiting });
  });
  router.post(
    '/jobs/:job/descriptions',
    files,
    asBytes(MOST_PAPER_BODY),
    async (request, response) => {
      await store.job(idOf(request, 'job'));
      response.json(await describeFile(fileOf(request)));
    },
  );
  router.post('/jobs/:job/papers', files, asBytes(MOST_PAPER_BODY), async (request, response) => {
    const { name, bytes } = fileOf(request);
    response.status(201).json(await papers.add(idOf(request, 'job'), name, bytes));
  });
  router.get('/jobs/:job/papers/:paper', async (request, response) => {
    const bytes = await papers.read(idOf(request, 'job'), thingIdOf(request, 'paper'));
    const { name } = fileOf(request);
    const type = mediaTypeOf(bytes);
    // Whatever it is: it is shown or saved, and never run as a page of this server. A sandbox would
    // keep the browser's own reader from showing a PDF, which runs in one anyway.
    if (type !== 'application/pdf')
      response.set('Content-Security-Policy', "sandbox; default-src 'none'");
    response
      .attachment(name)
      .set('Content-Disposition', dispositionOf(response, type))
      .set('X-Content-Type-Options', 'nosniff')
      .type(type)
      .send(bytes);
  });
  return router;
}

/** What a browser can show is shown, the rest is saved. */
function dispositionOf(response: Response, type: string): string {
  const header = String(response.get('Content-Disposition'));
  return type !== 'application/octet-stream' ? header.replace(/^attachment/, 'inline') : header;
}

export function assignRoutes({ door, reader, changer, field, openPage }: Services): Router {
  const router = Router();
  const base = '/jobs/:job/interfaces/:interface';
  router.get(`${base}/evidence`, async (request, response) => {
    response.json(await reader.evidenceOf(idOf(request, 'job'), thingIdOf(request, 'interface')));
  });
  router.post(`${base}/bind`, async (request, response) => {
    const wanted = checked(schema.binding, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await changer.bind(...ids, wanted, personOf(request));
    response.status(204).end();
  });
  const acts = {
    unbind: changer.unbind.bind(changer),
    'said-kept': changer.sayKept.bind(changer),
    'said-given': changer.sayGiven.bind(changer),
    follow: field.follow.bind(field),
  };
  for (const [name, act] of Object.entries(acts))
    router.post(`${base}/${name}`, async (request, response) => {
      await act(idOf(request, 'job'), thingIdOf(request, 'interface'), personOf(request));
      response.status(204).end();
    });
  const risky = { pin: field.pin.bind(field), 'watch-power': field.watchPower.bind(field) };
  for (const [name, act] of Object.entries(risky))
    router.post(`${base}/${name}`, async (request, response) => {
      const { evenSo } = checked(schema.goingOn, request.body);
      const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
      await act(...ids, personOf(request), evenSo);
      response.status(204).end();
    });
  router.post(`${base}/said-set-back`, async (request, response) => {
    const { reason } = checked(schema.setBack, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await changer.saySetBack(...ids, reason, personOf(request));
    response.status(204).end();
  });
  router.post(`${base}/said-one-device`, async (request, response) => {
    const { reason } = checked(schema.setBack, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await changer.sayOneDevice(...ids, reason, personOf(request));
    await field.oneDevice(...ids);
    response.status(204).end();
  });
  router.post(`${base}/read-off`, async (request, response) => {
    const read = checked(schema.readOff, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await changer.readOff(...ids, read, personOf(request));
    response.status(204).end();
  });
  router.post(`${base}/walk`, async (request, response) => {
    const { subnetId } = checked(schema.walking, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await field.walk(...ids, subnetId, personOf(request));
    response.status(202).end();
  });
  router.post(`${base}/read-register`, async (request, response) => {
    const wish = checked(schema.registerWish, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await field.readRegister(...ids, wish, personOf(request));
    response.status(204).end();
  });
  router.post(`${base}/ask-path`, async (request, response) => {
    const { from } = checked(schema.pathAsking, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await field.askPath(...ids, from, personOf(request));
    response.status(204).end();
  });
  router.post(`${base}/page`, async (request, response) => {
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await field.openPage(...ids, personOf(request));
    response.json(await openPage(browserIn(door, request)));
  });
  router.delete('/jobs/:job/page', async (request, response) => {
    field.needsJob(idOf(request, 'job'));
    await field.closePage();
    response.status(204).end();
  });
  router.post('/jobs/:job/drill', async (request, response) => {
    const { step } = checked(schema.drilling, request.body);
    await field.drill(idOf(request, 'job'), step, personOf(request));
    response.status(204).end();
  });
  router.post('/jobs/:job/sweep', async (request, response) => {
    await field.sweep(idOf(request, 'job'), personOf(request));
    response.status(204).end();
  });
  router.post('/jobs/:job/stations/search', async (request, response) => {
    await field.search(idOf(request, 'job'), personOf(request));
    response.status(204).end();
  });
  router.post('/jobs/:job/stations/:mac/flash', async (request, response) => {
    const mac = must(parseMac(request.params['mac'] ?? ''));
    await field.flash(idOf(request, 'job'), mac, personOf(request));
    response.status(204).end();
  });
  router.post(`${base}/station`, async (request, response) => {
    const { give, evenSo } = checked(schema.stationGiving, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await field.giveStation(...ids, give, personOf(request), evenSo);
    response.status(204).end();
  });
  router.post(`${base}/station/reset`, async (request, response) => {
    const { reason, evenSo } = checked(schema.stationReset, request.body);
    const ids = [idOf(request, 'job'), thingIdOf(request, 'interface')] as const;
    await field.resetStation(...ids, reason, personOf(request), evenSo);
    response.status(204).end();
  });
  router.post('/jobs/:job/check', async (request, response) => {
    const { interfaceIds } = checked(schema.interfaces, request.body);
    await field.check(idOf(request, 'job'), interfaceIds, personOf(request));
    response.status(202).end();
  });
  return router;
}

export function fieldRoutes({ door, field }: Services): Router {
  const router = Router();
  router.get('/field', (_request, response) => {
    response.json(field.view());
  });
  router.get('/field/heard', (_request, response) => {
    response.json(field.heard());
  });
  router.get('/field/stations', (_request, response) => {
    response.json(field.stations());
  });
  router.get('/field/present', (_request, response) => {
    response.json(field.present());
  });
  router.get('/field/adapters', (_request, response) => {
    response.json(listAdapters());
  });
  router.post('/field/wire', async (request, response) => {
    const isThrough = (adapter: string) => comesThrough(adapter, request);
    const choice = checked(schema.wireChoice, request.body);
    await field.chooseWire(choice, personOf(request), isThrough);
    response.json(field.view());
  });
  router.post('/field/notices/read', async (request, response) => {
    const { code, at } = checked(schema.noticeRead, request.body);
    await field.noticeRead(code, at);
    response.json(field.view());
  });
  router.post('/field/listen', async (request, response) => {
    const { jobId } = checked(schema.listening, request.body);
    await field.listen(jobId.toLowerCase(), personOf(request));
    response.json(field.view());
  });
  router.post('/field/rest', async (_request, response) => {
    await field.rest();
    response.json(field.view());
  });
  router.post('/field/arm', async (request, response) => {
    const { minutes } = checked(schema.arming, request.body);
    await field.arm(minutes, personOf(request), browserIn(door, request));
    response.json(field.view());
  });
  router.post('/field/here', (request, response) => {
    field.here(browserIn(door, request));
    response.status(204).end();
  });
  router.post('/field/silence', async (_request, response) => {
    await field.silence();
    response.json(field.view());
  });
  return router;
}

export function practiceRoutes({ practice }: Services): Router {
  const router = Router();
  router.get('/practice/cabinet', async (_request, response) => {
    response.json(await practice.act(undefined));
  });
  router.post('/practice/cabinet', async (request, response) => {
    response.json(await practice.act(checked(schema.cabinet, request.body).action));
  });
  return router;
}
