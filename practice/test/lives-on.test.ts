import { must, parseIpv4, parsePrefix } from '@ipsonomo/core/net';
import { SHELF, toDevice, toInterface, toPlan, toSubnet, type Kind } from '@ipsonomo/core/plan';
import { PracticeSite, siteOfPlan, withMistakes } from '../src';
import { seeded } from './helpers';

// Whatever a kind says of itself, time goes on: a device that had something to do at the same moment again and again would
// stop the whole site.

const HALL = toSubnet({
  ...{ id: 'hall', name: 'Hall', prefix: must(parsePrefix('10.4.7.0/24')) },
  gateway: must(parseIpv4('10.4.7.1')),
});

/** One device of this kind for each of its ways. */
function planOf(kind: Kind) {
  const devices = kind.ways.map(({ way }, at) => {
    const id = `${kind.id}-${at}`;
    const address = must(parseIpv4(`10.4.7.${20 + at}`));
    const interfaces = [toInterface({ id: `${id}-at`, deviceId: id, subnetId: 'hall', address })];
    return toDevice({ ...{ id, title: id, name: id, kindId: kind.id, way }, interfaces });
  });
  return toPlan({ subnets: [HALL], devices, kinds: [kind] });
}

const TEN_MINUTES = 600_000;
/** A device and second: one that asks, is asked, ticks and speaks does less. */
const MOST_A_SECOND = 20;

/** How often something happens in ten minutes in which nobody answers. */
function steps(kind: Kind): number {
  const plan = planOf(kind);
  const { site } = withMistakes(plan, siteOfPlan(plan, 3), { kind: 'chosen', which: [] }, 3);
  const practice = new PracticeSite(site, seeded(3), () => undefined, 0);
  const most = (MOST_A_SECOND * (1 + plan.devices.length) * TEN_MINUTES) / 1000;
  let count = 0;
  for (let at = practice.nextAt(); at <= TEN_MINUTES && count <= most; at = practice.nextAt()) {
    practice.run(at);
    count += 1;
  }
  return count / most;
}

const EXTREMES: readonly Partial<Kind>[] = [
  {},
  { longestPauseSeconds: 0 },
  { longestPauseSeconds: 1, bootSeconds: 0 },
  { longestPauseSeconds: 3600, bootSeconds: 3600 },
];

test.each(SHELF.map((kind) => [kind.id, kind] as const))('%s lives on', (_, kind) => {
  for (const fields of EXTREMES) {
    // By another id it is a kind of the plan's own.
    const own = { ...kind, ...fields, id: `own-${kind.id}` };
    expect([fields, steps(own) <= 1]).toEqual([fields, true]);
  }
});
