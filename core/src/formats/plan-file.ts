import { fail, ok, type Issue, type Result, type Misfit } from '../net';
import {
  docFromThings,
  isObject,
  readThing,
  sha256,
  shapeOf,
  THING_TYPES,
  type Json,
  type JsonObject,
  type PlanDoc,
  type ThingDoc,
  type ThingType,
} from '../plan';

// The plan as a file: JSON, every thing on a line of its own, so that two versions can be held side by
// side by any tool. docs/plan-format.md describes it; docs/plan.schema.json is made from `planSchema`.

const PLAN_FORMAT = 'ipsonomo-plan';
const PLAN_VERSION = 1;

/** The list of a plan file that each type of thing stands in. */
const LISTS: Readonly<Record<ThingType, string>> = {
  settings: 'settings',
  realm: 'realms',
  block: 'blocks',
  subnet: 'subnets',
  kind: 'kinds',
  device: 'devices',
  interface: 'interfaces',
  cable: 'cables',
  freed: 'freed',
  acceptance: 'acceptances',
};

const PAPERS = 'papers';

export interface PlanFile {
  readonly name: string;
  readonly doc: PlanDoc;
  /** What the papers of its kinds hold, in base64 by SHA-256; those left out are named all the same. */
  readonly papers: PlanPapers;
}

export type PlanPapers = ReadonlyMap<string, string>;

/** What is written: a plan whose papers hold nothing needs no word of them. */
type WrittenPlan = Omit<PlanFile, 'papers'> & Partial<Pick<PlanFile, 'papers'>>;

const NO_PAPERS: PlanPapers = new Map();

/** The file of a plan; the same plan gives the same bytes. */
export function writePlanFile({ name, doc, papers = NO_PAPERS }: WrittenPlan): string {
  const lists = THING_TYPES.map((type) => {
    const things = [...doc[type].values()].map((thing) => `\n    ${JSON.stringify(thing)}`);
    return `  ${JSON.stringify(LISTS[type])}: [${things.join(',')}${things.length > 0 ? '\n  ' : ''}]`;
  });
  const head = [
    `  "format": ${JSON.stringify(PLAN_FORMAT)}`,
    `  "version": ${PLAN_VERSION}`,
    `  "name": ${JSON.stringify(name)}`,
  ];
  const contents = [...papers].map(([id, text]) => `\n    "${id}": ${JSON.stringify(text)}`);
  if (papers.size > 0) lists.push(`  "${PAPERS}": {${contents.join(',')}\n  }`);
  return `{\n${[...head, ...lists].join(',\n')}\n}\n`;
}

/**
 * Reads a plan file. Nothing is left out silently: a field that is not known, a thing that stands
 * twice or is not whole refuses the file, with the place.
 * @returns refusals `file.json`, `file.format`, `file.version`, `file.value`, `file.twice` and those
 * of addresses and names, all of them at once
 */
export function readPlanFile(text: string): Result<PlanFile, readonly Issue[]> {
  const parsed = parseJson(text);
  if (!parsed.ok) return fail([parsed.error]);
  const json = parsed.value;
  if (!isObject(json) || json['format'] !== PLAN_FORMAT)
    return fail([{ code: 'file.format', where: 'format' }]);
  const { version } = json;
  if (typeof version !== 'number' || version < 1 || version > PLAN_VERSION)
    return fail([
      {
        code: 'file.version',
        where: String(version),
        facts: { have: String(version), most: PLAN_VERSION },
      },
    ]);
  const issues: Issue[] = unknownFields(json);
  const things = THING_TYPES.flatMap((type) => readList(type, json[LISTS[type]], issues));
  const { name } = json;
  if (typeof name !== 'string') issues.push(value('name', { misfit: 'text' }));
  const papers = readPapers(json[PAPERS], issues);
  return issues.length > 0
    ? fail(issues)
    : ok({ name: String(name), doc: docFromThings(things), papers });
}

function parseJson(text: string): Result<Json> {
  try {
    return ok(JSON.parse(text.replace(/^\uFEFF/, '')) as Json);
  } catch (error) {
    return fail({ code: 'file.json', where: 'The file', facts: { why: (error as Error).message } });
  }
}

const value = (where: string, facts: Misfit): Issue => ({ code: 'file.value', where, facts });

const HEAD = ['$schema', 'format', 'version', 'name', PAPERS];

function unknownFields(json: JsonObject): Issue[] {
  const known = new Set([...HEAD, ...Object.values(LISTS)]);
  return Object.keys(json)
    .filter((field) => !known.has(field))
    .map((field) => value(field, { misfit: 'unknown' }));
}

function readPapers(json: Json | undefined, issues: Issue[]): PlanPapers {
  if (json === undefined) return NO_PAPERS;
  if (!isObject(json)) {
    issues.push(value(PAPERS, { misfit: 'object' }));
    return NO_PAPERS;
  }
  const papers = Object.entries(json);
  for (const [id, content] of papers) {
    const path = `${PAPERS}.${id.slice(0, 80)}`;
    sha256.read(id, path, issues);
    if (typeof content !== 'string' || !/^[A-Za-z0-9+/]+={0,2}$/.test(content))
      issues.push(value(path, { misfit: 'base64' }));
  }
  return new Map(papers.map(([id, content]) => [id, String(content)]));
}

type Entry = readonly [type: ThingType, thing: ThingDoc];

function readList(type: ThingType, json: Json | undefined, issues: Issue[]): readonly Entry[] {
  if (json === undefined) return [];
  const list = LISTS[type];
  if (!Array.isArray(json)) {
    issues.push(value(list, { misfit: 'list' }));
    return [];
  }
  const seen = new Set<string>();
  return (json as readonly Json[]).flatMap((one, index): readonly Entry[] => {
    const path = `${list}.${index}`;
    const thing = readThing(type, one, path, issues);
    if (!thing) return [];
    if (seen.has(thing.id))
      issues.push({ code: 'file.twice', where: path, facts: { id: thing.id } });
    seen.add(thing.id);
    return [[type, thing]];
  });
}

/** JSON Schema (draft 2020-12) of a plan file, from the same table that reads it. */
export const planSchema = (): JsonObject => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Ipsonomo plan',
  type: 'object',
  properties: {
    $schema: { type: 'string' },
    format: { const: PLAN_FORMAT },
    version: { type: 'integer', minimum: 1, maximum: PLAN_VERSION },
    name: { type: 'string' },
    ...Object.fromEntries(
      THING_TYPES.map((type) => [
        LISTS[type],
        { type: 'array', items: { $ref: `#/$defs/${type}` } },
      ]),
    ),
    [PAPERS]: {
      type: 'object',
      propertyNames: sha256.schema,
      additionalProperties: { type: 'string', contentEncoding: 'base64' },
    },
  },
  required: ['format', 'version', 'name'],
  additionalProperties: false,
  $defs: Object.fromEntries(THING_TYPES.map((type) => [type, shapeOf(type).schema])),
});
