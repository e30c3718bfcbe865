import { jobViewOf, type HeardView } from '@ipsonomo/core/api';
import { FindBook } from '@ipsonomo/core/find';
import { writePlanFile } from '@ipsonomo/core/formats';
import { applyEdits, docOfPlan, planOf, type Plan, type PlanDoc } from '@ipsonomo/core/plan';
import { estimateRound, orderRound, roundCalls } from '@ipsonomo/core/round';
import { snagsOf } from '@ipsonomo/core/snags';
import { siteOfPlan, withMistakes } from '@ipsonomo/practice';
import { awaitedOf, HeardBook } from '../../app/src/features/calls/assign/awaited';
import { siteOf } from '../../core/test/snags/big-site';
import { median } from './figures';

// How what is computed of a whole plan grows with it. Prints, for each, the milliseconds by number of devices as JSON.

const SIZES = [500, 5000, 20_000, 50_000] as const;
const STRANGERS = 500;

const heard = Array.from({ length: STRANGERS }, (_, at): HeardView => ({
  ...{
    mac: `02:00:5e:01:${(at >> 8).toString(16).padStart(2, '0')}:${(at & 255).toString(16).padStart(2, '0')}`,
  },
  ...{ protocol: 'BootP', message: 'BootP', hostName: null, vendorClass: null, clientId: null },
  ...{
    address: null,
    port: null,
    count: 1,
    firstAt: 0,
    lastAt: at,
    changesNumber: false,
    twins: null,
  },
}));

function time(runs: number, work: () => unknown): number {
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) {
    const begun = performance.now();
    work();
    times.push(performance.now() - begun);
  }
  return median(times);
}

/** One device after the other is given another title. */
function oneEdit(first: PlanDoc): () => unknown {
  let doc = first;
  let count = 0;
  planOf(doc);
  return () => {
    const device = doc.device.list[(count * 37) % doc.device.size];
    const set = { op: 'set', type: 'device', id: device?.id ?? '', field: 'title' } as const;
    const edit = { ...set, from: device?.['title'] ?? null, to: `title ${(count += 1)}` };
    const outcome = applyEdits(doc, [edit]);
    if (!outcome.ok) throw new Error('refused');
    ({ doc } = outcome.value);
    return planOf(doc);
  };
}

function measured(plan: Plan, runs: number): Readonly<Record<string, number>> {
  const doc = docOfPlan(plan);
  const ids = plan.devices.flatMap((one) => one.interfaces.map(({ id }) => id));
  const head = { id: 'job', name: 'Job', revision: 1 };
  const book = new FindBook(plan);
  const view = jobViewOf(head, plan, { seen: {}, handedOver: 0 }, []);
  return {
    'the round of all calls': time(runs, () => orderRound(roundCalls(plan, new Set(ids)))),
    'the round played without a person': time(runs, () => estimateRound(plan, { people: 2 })),
    'what is awaited': time(runs, () => awaitedOf(view, ids, 0)),
    'an event with 500 strangers, and the ten lines that are seen': time(runs, () => {
      const book = new HeardBook(view, plan, [...heard]);
      for (const { at } of awaitedOf(view, ids, 0).slice(0, 10)) book.offersTo(at);
    }),
    'plan file': time(runs, () => writePlanFile({ name: 'Plant', doc })),
    'an edit, and the plan after it': time(runs * 5, oneEdit(doc)),
    'one letter more of what is found': time(runs, () => book.find('drive 1', 30)),
    'the site of a rehearsal, with ten mistakes': time(runs, () =>
      withMistakes(plan, siteOfPlan(plan, 1), { kind: 'surprise', count: 10 }, 1),
    ),
    'all snags': time(runs, () => snagsOf({ ...plan })),
  };
}

const all: Record<string, Record<number, number>> = {};
for (const size of SIZES) {
  const plan = planOf(docOfPlan(siteOf(size, 79)));
  for (const [what, millis] of Object.entries(measured(plan, size > 20_000 ? 3 : 5)))
    all[what] = { ...all[what], [size]: millis };
}
process.stdout.write(JSON.stringify(all));
