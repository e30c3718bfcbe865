import type { JobView } from '@ipsonomo/core/api';
import type { Plan } from '@ipsonomo/core/plan';
import { otherwiseSet, settingsIn, type SettingsFound } from '@ipsonomo/core/routes';

/** Masks and gateways that devices said they have and that are other than planned, by interface. */
export function settingsFound(plan: Plan, view: JobView): ReadonlyMap<string, SettingsFound> {
  const told = new Map(
    view.devices.flatMap(({ interfaces }) =>
      interfaces.flatMap(({ id, check }) => {
        const settings = check ? settingsIn(check.facts) : undefined;
        return settings ? [[id, settings] as const] : [];
      }),
    ),
  );
  const other = new Set(otherwiseSet(plan, told));
  return new Map([...told].filter(([id]) => other.has(id)));
}
