import { docFromView } from '@ipsonomo/core/api';
import { verdictWords } from '@ipsonomo/language';
import { planOf, type Plan } from '@ipsonomo/core/plan';
import {
  linkCells,
  neededPairs,
  planAsFound,
  predict,
  PreparedNet,
  routeMatrix,
  routeNetOf,
  type LinkCell,
} from '@ipsonomo/core/routes';
import type { NeededRoute, RoutesQuestion } from './needed-routes';

// Walks every connection that a plan speaks of, in a thread of its own.

function neededRoutes(plan: Plan): readonly NeededRoute[] {
  const net = new PreparedNet(routeNetOf(plan));
  return neededPairs(plan).flatMap(({ from, to, why }): readonly NeededRoute[] => {
    const host = net.host(from);
    if (!host) return [];
    const { verdict } = predict(net, {
      ...{ from: host, to: to.address, meant: net.host(to.device) },
    });
    const isFirm = verdict.works && verdict.remarks.length === 0;
    const works = verdict.works ? (isFirm ? 'yes' : 'not-by-itself') : 'no';
    return [{ from, to: to.interface, why, works, ...verdictWords(verdict) }];
  });
}

/** Who can talk with whom, lane by lane. */
function lanes(plan: Plan): readonly LinkCell[] {
  const net = routeNetOf(plan);
  return linkCells(net, routeMatrix(net));
}

self.onmessage = ({ data }: MessageEvent<RoutesQuestion>) => {
  try {
    const plan = planAsFound(planOf(docFromView(data)), data.found ?? new Map());
    self.postMessage(
      data.wants === 'routes' ? { routes: neededRoutes(plan) } : { cells: lanes(plan) },
    );
  } catch (error) {
    self.postMessage({ failed: String(error) });
  }
};
