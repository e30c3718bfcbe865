import type { ListTaking } from '@ipsonomo/core/api';
import { COLUMN_IDS } from '@ipsonomo/core/sheet';
import { answers, bytes, fetches, reads } from '../act';
import { keys } from '../keys';
import {
  choice,
  flag,
  list,
  matching,
  object,
  orNull,
  text,
  thingId,
  uuid,
  whole,
  type Shape,
} from '../shape';

const named = object({}, { name: text(1000) });
const MOST_PAPER = '21mb';

const taking: Shape<ListTaking> = object(
  {
    sheet: whole(0, 1000),
    columns: list(orNull(choice(...COLUMN_IDS)), 200),
    defaults: object(
      {},
      {
        ...{ kindId: text(80), subnetId: thingId },
        kinds: list(object({ words: text(1000), kindId: orNull(text(80)) }), 2000),
      },
    ),
  },
  { update: object({ takesOut: flag }) },
);

/** Files from elsewhere: lists of devices, descriptions of kinds, papers. */
export const fileActs = {
  sendList: answers('/jobs/:job/lists', 'Added', {
    about: 'Sends a list of devices (CSV, XLSX) to be read.',
    ...{ right: 'plan', status: 201 },
    ...{ query: named, body: bytes('application/octet-stream'), most: '24mb' },
    refusals: ['reading', 'list'],
  }),
  readList: reads('/jobs/:job/lists/:list', 'List', {
    about: 'How far a list was read.',
    key: ({ list: id }) => keys.list(id),
    refusals: ['list', 'file', 'reading'],
  }),
  readListLines: reads('/jobs/:job/lists/:list/lines', 'ListLines', {
    about: 'A sheet of a list as it stands there.',
    query: object({ sheet: matching('^\\d{1,4}$', 4, 'a whole number') }),
  }),
  previewList: answers('/jobs/:job/lists/:list/preview', 'ListPreview', {
    about: 'What would come of a list with its columns taken so.',
    ...{ right: 'plan', body: taking },
    refusals: ['list'],
  }),
  takeList: answers('/jobs/:job/lists/:list/take', 'Edited', {
    about: 'Adds the devices of a list to the plan.',
    ...{ right: 'plan', body: taking },
    refusals: ['list', 'edit'],
  }),
  readReadings: reads('/readings', 'Readings', { about: 'How many files wait to be read.' }),
  describe: answers('/jobs/:job/descriptions', 'Description', {
    about: 'Reads a description file of a kind of device; nothing is kept.',
    ...{ right: 'plan', query: named },
    ...{ body: bytes('application/octet-stream'), most: MOST_PAPER },
    refusals: ['file', 'reading'],
  }),
  fetchKinds: fetches('/jobs/:job/kinds.json', 'application/json', {
    about: 'The kinds of a plan as a plan file that holds nothing else, with their papers.',
  }),
  readKindsElsewhere: reads('/jobs/:job/kinds-elsewhere', 'KindsElsewhere', {
    about: 'What kinds other jobs have of their own that this one has not, or has otherwise.',
    key: ({ job }) => keys.kindsElsewhere(job),
  }),
  takeKinds: answers('/jobs/:job/kinds', 'KindsTaken', {
    about:
      'Takes kinds of another job, with their papers; what the plan has under the same id stays as it is.',
    ...{ right: 'plan', body: object({ from: uuid, kinds: list(thingId, 2000, 1) }) },
    stale: ({ job }) => [keys.kindsElsewhere(job)],
    refusals: ['edit', 'paper'],
  }),
  takeKindsFromFile: answers('/jobs/:job/kinds/from-file', 'KindsTaken', {
    about: 'Takes the kinds of a plan file, with their papers, and nothing else that it holds.',
    ...{ right: 'plan', body: bytes('application/octet-stream'), most: '200mb' },
    stale: ({ job }) => [keys.kindsElsewhere(job)],
    refusals: ['file', 'paper', 'reading', 'edit', 'ipv4', 'prefix', 'mac'],
  }),
  keepPaper: answers('/jobs/:job/papers', 'Paper', {
    about: 'Keeps a paper; a kind of the plan then has to name it.',
    ...{ right: 'plan', status: 201, query: named },
    ...{ body: bytes('application/octet-stream'), most: MOST_PAPER },
    refusals: ['paper', 'reading'],
  }),
  fetchPaper: fetches('/jobs/:job/papers/:paper', '*/*', {
    ...{ about: 'A paper that was kept.', query: named },
    refusals: ['paper'],
  }),
} as const;
