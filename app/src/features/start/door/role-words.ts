import { ROLES, type Role } from '@ipsonomo/core/api';
import { DOOR_WORDS } from '@ipsonomo/language/screens/door';

/** After "may". */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  ...{ look: DOOR_WORDS.mayLook, plan: DOOR_WORDS.mayPlan },
  ...{ assign: DOOR_WORDS.mayAssign, keep: DOOR_WORDS.mayKeep },
};

const MORE: Readonly<Record<Role, string>> = {
  ...{ look: DOOR_WORDS.mayLookMore, plan: DOOR_WORDS.mayPlanMore },
  ...{ assign: DOOR_WORDS.mayAssignMore, keep: DOOR_WORDS.mayKeepMore },
};

export const ROLE_OPTIONS = ROLES.map((value) => ({
  ...{ value, title: ROLE_WORDS[value], detail: MORE[value] },
}));
