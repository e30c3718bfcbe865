import { randomUUID } from 'node:crypto';
import { must, parseIpv4 } from '@ipsonomo/core/net';
import { docOf, type Edit, type Freed, type PlanDoc, type ThingDoc } from '@ipsonomo/core/plan';

/**
 * R-FREED: the addresses that these edits take from devices, as things of the plan with whose they
 * were. An address that another interface gets in the same change was moved, not freed.
 */
export function freedBy(
  doc: PlanDoc,
  edits: readonly Edit[],
  at: number,
  revision: number,
): readonly Edit[] {
  const left: ThingDoc[] = [];
  const given = new Set<string>();
  for (const edit of edits) {
    if (edit.type !== 'interface') continue;
    if (edit.op === 'remove') left.push(edit.thing);
    else if (edit.op === 'add') given.add(keyOf(edit.thing));
    else if (edit.field === 'address' || edit.field === 'subnetId') {
      const before = doc.interface.get(edit.id);
      if (!before) continue;
      left.push(before);
      given.add(keyOf({ ...before, [edit.field]: edit.to }));
    }
  }
  return left
    .filter((one) => !given.has(keyOf(one)))
    .map((one) => {
      const deviceId = String(one['deviceId']);
      const freed: Freed = {
        id: randomUUID(),
        subnetId: String(one['subnetId']),
        address: must(parseIpv4(String(one['address']))),
        ...{ deviceId, at, revision },
        whose: String(doc.device.get(deviceId)?.['title'] ?? 'a device'),
      };
      return { op: 'add', type: 'freed', thing: docOf('freed', freed) };
    });
}

const keyOf = (at: ThingDoc): string => `${String(at['subnetId'])}|${String(at['address'])}`;
