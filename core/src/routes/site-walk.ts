import type { Ipv4 } from '../net';
import { gatewayOf, type Subnet } from '../plan';
import { toRouteHost, type RouteHost } from './net';
import type { ThereAndBack } from './predict';

// A way that was predicted, beside the way packets went.

/** Ipsonomo itself, with an address in a subnet that is on the cable. */
export const laptopIn = (subnet: Subnet, address: Ipv4): RouteHost =>
  toRouteHost({
    ...{ id: 'laptop', title: 'this laptop' },
    ports: [
      {
        ...{ id: 'laptop', link: subnet.id, address, length: subnet.prefix.length },
        gateway: gatewayOf({ gateway: 'subnet', address }, subnet),
      },
    ],
  });

export interface WalkStep {
  /** Who answers at this step by the plan; undefined for nobody. */
  readonly predicted: Ipv4 | undefined;
  readonly predictedTitle: string;
  readonly walked: Ipv4 | undefined;
}

export interface WalkComparison {
  readonly steps: readonly WalkStep[];
  /** The first step at which the two differ; undefined where they agree. */
  readonly differsAt: number | undefined;
  /** Does the device answer, by the plan and on the wire? */
  readonly reaches: { readonly predicted: boolean; readonly walked: boolean };
}

/**
 * Step by step: each router on the way answers with the address the packet came in at (RFC 1812 §4.3.2.4 leaves
 * it to the router which; this one is usual), and the device with its own where its reply comes back.
 * @param told from `laptopIn`
 * @param path who answered at each step
 */
export function compareWalk(
  { there, verdict }: ThereAndBack,
  path: readonly (Ipv4 | undefined)[],
  reached: boolean,
): WalkComparison {
  const hops = there.hops.slice(1);
  const predicted = hops.map((hop, at) => {
    const isEnd = at === hops.length - 1 && !there.stop;
    const answers = isEnd ? verdict.works : hop.host.host.forwards;
    return {
      predicted: answers ? (isEnd ? hop.ends.to : hop.in?.address) : undefined,
      predictedTitle: hop.host.host.title,
    };
  });
  // That nobody answers any more is one step, however often it was asked.
  const last = path.findLastIndex((one) => one !== undefined);
  const walked = path.slice(0, Math.max(last + 1, Math.min(path.length, predicted.length)));
  const count = Math.max(predicted.length, walked.length);
  const steps = Array.from({ length: count }, (_, at): WalkStep => ({
    ...(predicted[at] ?? { predicted: undefined, predictedTitle: '' }),
    walked: walked[at],
  }));
  const differsAt = steps.findIndex((one) => one.predicted !== one.walked);
  return {
    steps,
    differsAt: differsAt < 0 ? undefined : differsAt,
    reaches: { predicted: verdict.works, walked: reached },
  };
}
