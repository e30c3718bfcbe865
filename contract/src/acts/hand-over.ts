import {
  FORMATS,
  READERS,
  type FormatId,
  type HandOverScope,
  type PackageWish,
} from '@ipsonomo/core/api';
import { answers, does, ends, fetches, reads } from '../act';
import { keys } from '../keys';
import { choice, flag, list, object, text, thingId, type Shape } from '../shape';
import { ofJobAndJobs } from './jobs';

const formats = list(choice<FormatId>(...FORMATS), FORMATS.length, 1);

const scope: Shape<HandOverScope> = object(
  { cabinets: list(text(40), 5000), subnets: list(thingId, 5000) },
  { interfaces: list(thingId, 5000) },
);

const wish: Shape<PackageWish> = object({ formats, scope, despite: flag });

/** What leaves: files by who reads them, and that they were handed over. */
export const handOverActs = {
  beginPackage: answers('/jobs/:job/packages', 'Added', {
    about: 'Begins to write files of a job as it is now; several become one ZIP.',
    ...{ right: 'look', status: 201, body: wish },
  }),
  readPackage: reads('/jobs/:job/packages/:package', 'Package', {
    about: 'How far a package is, and once it is ready what is in it and what is not.',
    key: ({ package: made }) => keys.package(made),
  }),
  fetchPackage: fetches('/jobs/:job/packages/:package/file', '*/*', {
    about: 'The file of a package, once it is ready.',
    refusals: ['package'],
  }),
  endPackage: ends('/jobs/:job/packages/:package', {
    about: 'Takes a package back, wherever it is; nothing of it is left.',
    right: 'look',
  }),
  fetchFormat: fetches('/jobs/:job/files/:format', '*/*', {
    about:
      'A format of the whole job or of one interface, for programs: one file, or a ZIP where it has several. With despite=yes also where something is wrong in the plan.',
    query: object({}, { despite: choice('yes'), interface: thingId }),
    refusals: ['package'],
  }),
  listWrittenTicks: reads('/jobs/:job/written', 'WrittenTicks', {
    about: 'What was said last of each place where an address or a name is written.',
    key: ({ job }) => keys.writtenTicks(job),
  }),
  listHandOvers: reads('/jobs/:job/hand-overs', 'HandedOver', {
    about: 'What each reader was handed last, when, and of which revision.',
    key: ({ job }) => keys.handOvers(job),
  }),
  noteHandOver: does('/jobs/:job/hand-overs', {
    about: 'Notes that files of the plan as it is now were handed to a reader.',
    ...{ right: 'plan', body: object({ reader: choice(...READERS), formats }) },
    stale: ofJobAndJobs,
  }),
} as const;
