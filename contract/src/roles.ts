import { ROLES, type Role } from '@ipsonomo/core/api';
import type { Right } from './act';

/** The role that a right needs at least; to send needs a grant of its job's wire besides. */
const LEAST: Readonly<Record<Exclude<Right, 'door'>, Role>> = {
  ...{ look: 'look', plan: 'plan', assign: 'assign', send: 'assign', keep: 'keep' },
};

/** Whether a role has a right. Whoever stands before the door has none but to knock. */
export const hasRight = (role: Role, right: Right): boolean =>
  right === 'door' || ROLES.indexOf(role) >= ROLES.indexOf(LEAST[right]);
