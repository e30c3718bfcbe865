export { openSnags, SnagBook, snagsOf } from './book';
export { connectionSnags, registerFrom0 } from './connection-rules';
export { mendOf, type Mend, type MendLabel } from './mend';
export { mendAll, type MendedAll } from './mend-all';
export {
  countWrong,
  SEVERITIES,
  SNAG_RULE_IDS,
  SNAG_RULES,
  snagKey,
  type Severity,
  type Snag,
  type SnagFacts,
  type SnagRule,
} from './snag';
