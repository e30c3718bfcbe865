import type { Plan } from '@ipsonomo/core/plan';
import type { ProofScope } from '@ipsonomo/core/proof';
import { PROVE_WORDS } from '@ipsonomo/language/screens/prove';
import type { PickOption } from '../../parts';
import { interfaceOptions } from '../words';

/** The whole job, among the places one may choose. */
export const WHOLE = 'job';

/** What a run or a vigil may be over, as it is chosen. */
export function placesOf(plan: Plan): readonly PickOption<string>[] {
  const devices = interfaceOptions(plan).map((one) => ({
    ...one,
    value: `interface:${one.value}`,
  }));
  const cabinets = [...new Set(plan.devices.map(({ cabinet }) => cabinet))].filter(Boolean).sort();
  return [
    { value: WHOLE, title: PROVE_WORDS.theWholeJob },
    ...plan.subnets.map(({ id, name }) => ({
      value: `subnet:${id}`,
      title: PROVE_WORDS.subnet({ name }),
    })),
    ...cabinets.map((one) => ({ value: `cabinet:${one}`, title: PROVE_WORDS.cabinet({ one }) })),
    ...devices,
  ];
}

export function scopeOf(place: string): ProofScope {
  const [kind, ...rest] = place.split(':');
  const value = rest.join(':');
  if (kind === 'subnet') return { kind: 'subnet', subnetId: value };
  if (kind === 'interface') return { kind: 'interface', interfaceId: value };
  if (kind === 'cabinet') return { kind: 'cabinet', cabinet: value };
  return { kind: 'job' };
}
