import { Address4 } from 'ip-address';
import ipaddr from 'ipaddr.js';
import { containsAddress, must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { applyEdits, docOfPlan, planOf, splitBlock, type Need } from '@ipsonomo/core/plan';
import { SnagBook, snagsOf } from '@ipsonomo/core/snags';
import { siteOf } from '../../core/test/snags/big-site';
import { median } from './figures';

// The planner's computation, bundled as the server is. Prints one JSON object of medians.

/** @returns the median of the runs after the first, in milliseconds */
function time(work: () => unknown, runs: number): number {
  work();
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) {
    const start = performance.now();
    work();
    times.push(performance.now() - start);
  }
  return median(times);
}

const PER_SUBNET = 80;

function snagTimes(count: number, runs: number) {
  const site = siteOf(count, PER_SUBNET - 1);
  const plan = planOf(docOfPlan(site));
  return { subnets: site.subnets.length, millis: time(() => snagsOf({ ...plan }), runs) };
}

/** One interface after the other gets another address; apply, read and look. */
function editTimes(): { readonly book: number; readonly all: number } {
  const book = new SnagBook();
  let doc = docOfPlan(siteOf(5000, PER_SUBNET - 1));
  book.update(planOf(doc));
  const books: number[] = [];
  const alls: number[] = [];
  const ids = [...doc.interface.keys()];
  for (let i = 0; i < 200; i += 1) {
    const id = ids[(i * 37) % ids.length] ?? '';
    const from = doc.interface.get(id)?.['address'] ?? null;
    const to = `10.20.0.${3 + (i % 240)}`;
    const start = performance.now();
    const outcome = applyEdits(doc, [
      { op: 'set', type: 'interface', id, field: 'address', from, to },
    ]);
    if (!outcome.ok) throw new Error('an edit of what is there applies');
    doc = outcome.value.doc;
    const plan = planOf(doc);
    const look = performance.now();
    book.update(plan);
    books.push(performance.now() - look);
    alls.push(performance.now() - start);
  }
  return { book: median(books), all: median(alls) };
}

function splitTime(): number {
  const block = must(parsePrefix('10.16.0.0/12'));
  const needs = Array.from({ length: 1000 }, (_, i): Need => ({
    ...{ name: `Need ${i}`, devices: 5 + ((i * 7919) % 400), growthPercent: 20, held: 0 },
    ...{ isWhole24: false, fixed: undefined },
  }));
  return time(() => must(splitBlock(block, needs)), 15);
}

/** A thousand addresses read and looked for in a network, by us and by two libraries. */
function parseRates() {
  const texts = Array.from(
    { length: 1000 },
    (_, i) => `172.${16 + (i % 16)}.${i % 256}.${(i * 31) % 256}`,
  );
  const prefix = must(parsePrefix('172.22.0.0/16'));
  const range = ipaddr.parseCIDR('172.22.0.0/16');
  const other = new Address4('172.22.0.0/16');
  const ours = () => texts.filter((text) => containsAddress(prefix, must(parseIpv4(text)))).length;
  const first = () => texts.filter((text) => ipaddr.parse(text).match(range)).length;
  const second = () => texts.filter((text) => new Address4(text).isInSubnet(other)).length;
  if (new Set([ours(), first(), second()]).size !== 1) throw new Error('they do not agree');
  const perSecond = (work: () => unknown) => texts.length / (time(work, 60) / 1000);
  return { ours: perSecond(ours), ipaddr: perSecond(first), ipAddress: perSecond(second) };
}

const small = snagTimes(5000, 25);
const large = snagTimes(50_000, 5);
process.stdout.write(
  JSON.stringify({
    ...{ small, large, edit: editTimes(), split: splitTime(), parse: parseRates() },
  }),
);
