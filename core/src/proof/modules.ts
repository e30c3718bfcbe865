import type { Device, Kind } from '../plan';
import type { FoundDifference } from './differences';

/** A module as the device tells of it. */
export interface ModuleFound {
  readonly slot: number;
  /** As its description file has it; undefined where the protocol tells names only. */
  readonly ident: number | undefined;
  /** Empty where the protocol tells numbers only. */
  readonly name: string;
}

export interface PlannedModules {
  readonly modules: Device['modules'];
  /** All that fit such a device. */
  readonly offers: Kind['modules'];
}

const EMPTY = 'empty';

/** What a module is called: as its kind offers it, else as it says, else by its number. */
function moduleTitle(offers: Kind['modules'], { ident, name }: ModuleFound): string {
  const offered = offers.find((one) =>
    ident === undefined ? one.title.toLowerCase() === name.toLowerCase() : one.ident === ident,
  );
  if (offered) return offered.title;
  return name || `module 0x${(ident ?? 0).toString(16).padStart(8, '0')}`;
}

interface Slot {
  readonly slot: number;
  readonly title: string;
}

/** @example modulesText([{ slot: 1, title: '8 channels' }]) // 'slot 1: 8 channels' */
export const modulesText = (modules: readonly Slot[]): string =>
  modules.map(({ slot, title }) => `slot ${slot}: ${title}`).join('; ');

/** Reads such a text back; a slot that is empty has no title. */
export const readModulesText = (text: string): readonly Slot[] =>
  text.split('; ').flatMap((part) => {
    const [, slot, title] = /^slot (\d+): (.*)$/.exec(part) ?? [];
    return slot === undefined || title === undefined
      ? []
      : [{ slot: Number(slot), title: title === EMPTY ? '' : title }];
  });

/** What the plan has in the slots that such a text names. */
export const modulesAt = (modules: readonly Slot[], text: string): string =>
  modulesText(
    readModulesText(text).map(({ slot }) => ({
      slot,
      title: modules.find((one) => one.slot === slot)?.title ?? EMPTY,
    })),
  );

/** Is it what is planned there? A module that nothing is known of counts as the planned one. */
function isPlanned(title: string, offers: Kind['modules'], found: ModuleFound): boolean {
  const known = moduleTitle(offers, found);
  if (known === title) return true;
  const idents = offers.flatMap((one) => (one.title === title ? (one.ident ?? []) : []));
  if (found.ident !== undefined && idents.length > 0) return idents.includes(found.ident);
  return !offers.some((one) => one.title === known);
}

/** Slot 0 is the station itself. */
const HEAD = 0;

/** What is plugged in, as a text; the station itself is none of its modules. */
export const foundModulesText = (offers: Kind['modules'], found: readonly ModuleFound[]): string =>
  modulesText(
    found
      .map((one) => ({ ...one, title: moduleTitle(offers, one) }))
      .filter(({ slot, title }) => slot !== HEAD || offers.some((one) => one.title === title)),
  );

/** R-MODULES: planned and found slot by slot; nothing where nothing is planned or told. */
export function moduleDifferences(
  { modules, offers }: PlannedModules,
  found: readonly ModuleFound[] | undefined,
): readonly FoundDifference[] {
  if (!found || modules.length === 0) return [];
  const expected: Slot[] = [];
  const has: Slot[] = [];
  const slots = new Set([...modules, ...found].map(({ slot }) => slot));
  for (const slot of [...slots].sort((a, b) => a - b)) {
    const planned = modules.find((one) => one.slot === slot);
    const there = found.find((one) => one.slot === slot);
    if (!planned && slot === HEAD) continue;
    if (planned && there && isPlanned(planned.title, offers, there)) continue;
    expected.push({ slot, title: planned?.title ?? EMPTY });
    has.push({ slot, title: there ? moduleTitle(offers, there) : EMPTY });
  }
  return expected.length === 0
    ? []
    : [{ what: 'module', expected: modulesText(expected), found: modulesText(has) }];
}
