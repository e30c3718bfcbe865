import { HELP_WORDS } from '@ipsonomo/language/screens/help';

/** What each page is for, by the name of its path. */
const TEXTS: Readonly<Record<string, string>> = {
  plan: HELP_WORDS.plan,
  assign: HELP_WORDS.assign,
  prove: HELP_WORDS.prove,
  'hand-over': HELP_WORDS.handOver,
  snags: HELP_WORDS.snags,
  revisions: HELP_WORDS.revisions,
  join: HELP_WORDS.join,
  kinds: HELP_WORDS.kinds,
  'new-kind': HELP_WORDS.newKind,
  'new-devices': HELP_WORDS.newDevices,
  'new-subnet': HELP_WORDS.newSubnet,
  import: HELP_WORDS.import,
  copy: HELP_WORDS.copy,
  block: HELP_WORDS.block,
  device: HELP_WORDS.device,
  subnet: HELP_WORDS.subnet,
  thing: HELP_WORDS.thing,
  wire: HELP_WORDS.wire,
  cabinet: HELP_WORDS.cabinet,
  rehearsal: HELP_WORDS.rehearsal,
  tools: HELP_WORDS.tools,
  routes: HELP_WORDS.routes,
  'there-and-back': HELP_WORDS.thereAndBack,
  lanes: HELP_WORDS.lanes,
  picture: HELP_WORDS.picture,
  codes: HELP_WORDS.codes,
  known: HELP_WORDS.known,
  written: HELP_WORDS.written,
  controller: HELP_WORDS.controller,
  drill: HELP_WORDS.drill,
  vigil: HELP_WORDS.vigil,
  runs: HELP_WORDS.runs,
  run: HELP_WORDS.run,
  causes: HELP_WORDS.causes,
  call: HELP_WORDS.call,
  swap: HELP_WORDS.swap,
  desk: HELP_WORDS.desk,
  'how-long': HELP_WORDS.howLong,
  find: HELP_WORDS.find,
};

/** The words that a page uses as nobody else does. */
export const WORDS: readonly string[] = [
  HELP_WORDS.wordWay,
  HELP_WORDS.wordCall,
  HELP_WORDS.wordBind,
  HELP_WORDS.wordLetAnswer,
  HELP_WORDS.wordSilent,
  HELP_WORDS.wordStranger,
  HELP_WORDS.wordSnag,
  HELP_WORDS.wordRealm,
  HELP_WORDS.wordLoan,
];

/** @example helpOf('plan') // 'The subnets and devices of this job …' */
export const helpOf = (page: string): string | undefined =>
  Object.hasOwn(TEXTS, page) ? TEXTS[page] : undefined;

/**
 * The page that a route shows, by its own name.
 * @example pageOf(['job', '[job]', '(assign)', 'call', '[interface]']) // 'call'
 */
export const pageOf = (segments: readonly string[]): string =>
  segments.slice(2).find((one) => !one.startsWith('(') && !one.startsWith('[')) ?? '';
