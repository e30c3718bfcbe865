import type { Findable } from '@ipsonomo/core/find';
import { FIND_WORDS } from '@ipsonomo/language/screens/find';

/** What is a page and no thing of the plan, by its path within the job. */
const PAGES: readonly (readonly [path: string, title: string])[] = [
  ['new-devices', FIND_WORDS.addDevices],
  ['new-subnet', FIND_WORDS.addASubnet],
  ['new-kind', FIND_WORDS.aKindOfYourOwn],
  ['import', FIND_WORDS.devicesFromAList],
  ['copy', FIND_WORDS.copyAMachine],
  ['block/new', FIND_WORDS.splitABlock],
  ['snags', FIND_WORDS.snags],
  ['revisions', FIND_WORDS.revisions],
  ['join', FIND_WORDS.join],
  ['kinds', FIND_WORDS.kinds],
  ['wire', FIND_WORDS.wire],
  ['desk', FIND_WORDS.desk],
  ['how-long', FIND_WORDS.howLong],
  ['tools', FIND_WORDS.tools],
  ['routes', FIND_WORDS.routes],
  ['drill', FIND_WORDS.coldStart],
  ['vigil', FIND_WORDS.vigil],
  ['picture', FIND_WORDS.picture],
  ['runs', FIND_WORDS.runs],
  ['controller', FIND_WORDS.controller],
  ['codes', FIND_WORDS.codes],
  ['known', FIND_WORDS.known],
  ['written', FIND_WORDS.written],
  ['hand-over', FIND_WORDS.handOver],
];

export const PAGES_TO_FIND: readonly Findable[] = PAGES.map(([id, title]) => ({
  ...({ kind: 'page', id, title, detail: FIND_WORDS.page } as const),
  ...{ text: title.toLowerCase(), macs: '' },
}));
