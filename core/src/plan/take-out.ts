import type { PlanDoc } from './document';
import type { ThingDoc } from './thing-map';
import type { Edit } from './edits';
import { isObject } from './shape';

/**
 * Takes devices out of a plan with their interfaces and cables. What else names one of them (as
 * controller, as alarm receiver) is left as it is: a snag then says so.
 */
export function editsOfTakingOut(doc: PlanDoc, deviceIds: ReadonlySet<string>): readonly Edit[] {
  const isOut = (id: unknown): boolean => typeof id === 'string' && deviceIds.has(id);
  const isCableOut = (cable: ThingDoc): boolean =>
    [cable['from'], cable['to']].some((end) => isObject(end) && isOut(end['deviceId']));
  const out = [
    ...[...doc.cable.values()].filter(isCableOut).map((thing) => ['cable', thing] as const),
    ...[...doc.interface.values()]
      .filter((at) => isOut(at['deviceId']))
      .map((thing) => ['interface', thing] as const),
    ...[...doc.device.values()]
      .filter(({ id }) => deviceIds.has(id))
      .map((thing) => ['device', thing] as const),
  ];
  return out.map(([type, thing]): Edit => ({ op: 'remove', type, thing }));
}
