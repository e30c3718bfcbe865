import { formatPrefix, readNetwork, type Issue } from '@ipsonomo/core/net';
import { firstRealm, type Block, type Need, type Plan } from '@ipsonomo/core/plan';
import { BLOCK_WORDS } from '@ipsonomo/language/screens/block';
import { newId } from '../../../data/new-id';

/** A need as it is typed. */
export interface NeedDraft {
  readonly name: string;
  readonly devices: string;
  readonly growth: string;
  readonly held: string;
  readonly isWhole24: boolean;
  /** A place it has, or must have; empty for any. */
  readonly fixed: string;
}

export interface BlockDraft {
  readonly id: string;
  readonly name: string;
  readonly network: string;
  readonly realmId: string;
  readonly needs: readonly NeedDraft[];
}

export const NEW_NEED: NeedDraft = {
  ...{ name: '', devices: '', growth: '20', held: '0', isWhole24: false, fixed: '' },
};

export const newBlock = (plan: Plan): BlockDraft => ({
  ...{ id: newId(), name: '', network: '' },
  realmId: firstRealm(plan),
  needs: [NEW_NEED],
});

export const draftOf = ({ id, name, realmId, prefix, needs }: Block): BlockDraft => ({
  ...{ id, name, realmId, network: formatPrefix(prefix) },
  needs: needs.map((need) => ({
    name: need.name,
    devices: String(need.devices),
    growth: String(need.growthPercent),
    held: String(need.held),
    isWhole24: need.isWhole24,
    fixed: need.fixed ? formatPrefix(need.fixed) : '',
  })),
});

/** Where a need came to lie, or what it would take. */
export interface Place {
  readonly network: string;
  readonly detail: string;
  readonly isPlaced: boolean;
}

export interface BlockReading {
  /** The block, where nothing is missing. */
  readonly block: Block | undefined;
  readonly networkIssue: Issue | undefined;
  /** By the need's place. */
  readonly needIssues: readonly (Issue | undefined)[];
}

/** What was typed as a block of the plan; a line without a name and a number is not there yet. */
export function readBlock(draft: BlockDraft): BlockReading {
  const prefix = readNetwork(draft.network);
  const lines = draft.needs.map(readNeed);
  const needIssues = lines.map((line) => (line && 'code' in line ? line : undefined));
  const isWhole = prefix.ok && needIssues.every((one) => one === undefined);
  const needs = lines.flatMap((line) => (line && !('code' in line) ? [line] : []));
  const name = draft.name.trim() || BLOCK_WORDS.block;
  return {
    needIssues,
    networkIssue: prefix.ok || draft.network === '' ? undefined : prefix.error,
    block: isWhole
      ? { ...{ id: draft.id, name, realmId: draft.realmId }, prefix: prefix.value, needs, note: '' }
      : undefined,
  };
}

function readNeed(draft: NeedDraft): Need | Issue | undefined {
  const name = draft.name.trim();
  if (name === '' && draft.devices === '') return undefined;
  if (name === '') return { code: 'cell.empty', where: 'name' };
  const numbers = [draft.devices, draft.growth, draft.held].map((text) =>
    /^\d{1,7}$/.test(text.trim()) ? Number(text) : undefined,
  );
  const [devices, growthPercent, held] = numbers;
  if (devices === undefined || growthPercent === undefined || held === undefined)
    return { code: 'need.number', where: name };
  const fixed = draft.fixed.trim() === '' ? undefined : readNetwork(draft.fixed);
  if (fixed && !fixed.ok) return fixed.error;
  return { name, devices, growthPercent, held, isWhole24: draft.isWhole24, fixed: fixed?.value };
}
