import {
  linkCells,
  neededPairs,
  planAsFound,
  planOf,
  predict,
  PreparedNet,
  routeMatrix,
  routeNetOf,
  verdictWords,
  type LinkCell,
  type PlanDoc,
} from '@ipsonomo/core';
import type { NeededRoute, RoutesQuestion } from './needed-routes';

// Walks every connection that a plan speaks of, in a thread of its own.

function neededRoutes({ doc, found = new Map() }: RoutesQuestion): readonly NeededRoute[] {
  const plan = planAsFound(planOf(doc), found);
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
function lanes(doc: PlanDoc): readonly LinkCell[] {
  const net = routeNetOf(planOf(doc));
  return linkCells(net, routeMatrix(net));
}

self.onmessage = ({ data }: MessageEvent<RoutesQuestion>) => {
  try {
    self.postMessage(
      data.wants === 'routes' ? { routes: neededRoutes(data) } : { cells: lanes(data.doc) },
    );
  } catch (error) {
    self.postMessage({ failed: String(error) });
  }
};
