import Ajv2020 from 'ajv/dist/2020';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { acts } from '@ipsonomo/contract';
import { cases } from '../../../core/test/cases';
import { ApiBench, type Method } from './api-bench';

// Requests that are made from the published description (OpenAPI 3.1), and answers held against it by a validator of others
// (Ajv, JSON Schema 2020-12).

interface Schema {
  readonly type?: string;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Schema[];
  readonly format?: string;
  readonly pattern?: string;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly items?: Schema;
  readonly minItems?: number;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
}

interface Media {
  readonly content?: Readonly<Record<string, { readonly schema: Schema }>>;
}

interface Operation {
  readonly operationId: string;
  readonly parameters: readonly {
    readonly name?: string;
    readonly in?: string;
    readonly schema?: Schema;
  }[];
  readonly requestBody?: Media;
  readonly responses: Readonly<Record<string, Media>>;
}

const DOCUMENT = JSON.parse(
  readFileSync(join(__dirname, '../../../docs/api/openapi.json'), 'utf8'),
) as { readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>> };

let bench: ApiBench;

beforeAll(async () => {
  bench = await ApiBench.open('contract');
}, 30_000);
afterAll(() => bench.close());
afterEach(() => expect(bench.logged).toEqual([]));

/** What is found in a job, so that what is behind an id is reached as well. */
const known = () => {
  const { id, devices, subnets } = bench.job;
  const at = devices[0]?.interfaces[0];
  return { job: id, interface: at?.id ?? '', subnet: subnets[0]?.id ?? '', device: devices[0]?.id };
};

/** Values of a schema; now and then one that it does not allow. */
function valueOf(schema: Schema, name = ''): fc.Arbitrary<unknown> {
  return fc.oneof(
    { weight: 12, arbitrary: rightOf(schema, name) },
    { weight: 1, arbitrary: WRONG },
  );
}

const WRONG: fc.Arbitrary<unknown> = fc.oneof(
  fc.jsonValue({ maxDepth: 1 }),
  fc.constantFrom('', '\0', 'x'.repeat(400), -1, 1e12, null),
);

function rightOf(schema: Schema, name: string): fc.Arbitrary<unknown> {
  if (schema.anyOf) return fc.oneof(...schema.anyOf.map((one) => rightOf(one, name)));
  if (schema.enum) return fc.constantFrom(...schema.enum);
  if (/Ids?$/.test(name) && schema.type === 'string')
    return fc.constantFrom(...Object.values(known()));
  switch (schema.type) {
    case 'string':
      return textOf(schema);
    case 'integer':
      return fc.integer({ min: schema.minimum ?? 0, max: schema.maximum ?? 100 });
    case 'number':
      return fc.double({ min: schema.minimum ?? 0, max: schema.maximum ?? 1e6, noNaN: true });
    case 'boolean':
      return fc.boolean();
    case 'array':
      return fc.array(valueOf(schema.items ?? {}, name), {
        ...{ minLength: schema.minItems ?? 0, maxLength: 3 },
      });
    case 'object':
      return objectOf(schema);
    default:
      return fc.constant(null);
  }
}

function textOf({ format, maxLength = 20, minLength = 0 }: Schema): fc.Arbitrary<string> {
  if (format === 'uuid') return fc.oneof(fc.constant(bench.job.id), fc.uuid());
  const words = ['10.20.0.9', '10.9.0.0/24', '02:00:5e:00:53:01', 'as planned', '1', 'practice'];
  return fc.oneof(
    fc.constantFrom(...words.filter(({ length }) => length <= maxLength)),
    fc.string({ minLength, maxLength: Math.min(maxLength, 30) }),
  );
}

function objectOf({ properties = {}, required = [] }: Schema): fc.Arbitrary<unknown> {
  const fields = Object.entries(properties).map(([name, schema]) => [name, valueOf(schema, name)]);
  return fc.record(Object.fromEntries(fields) as Record<string, fc.Arbitrary<unknown>>, {
    requiredKeys: required as string[],
  });
}

/** All but what lets somebody in, what is no JSON, and what would take the wire from the other tests' server. */
const LEFT_OUT: ReadonlySet<string> = new Set(['events', 'enter']);

const operations = Object.entries(DOCUMENT.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
);

test('it has every act of the contract, and the stream', () => {
  const names = operations.map(({ operation }) => operation.operationId).sort();
  expect(names).toEqual([...Object.keys(acts), 'events'].sort());
});

test('seeded requests made from it: every answer is as it says, and none is our fault', async () => {
  const ajv = new Ajv2020({ strict: false, validateFormats: false });
  ajv.addSchema(DOCUMENT, 'api');
  const checks = new Map<string, ReturnType<typeof ajv.compile>>();
  const checkOf = (at: string) => {
    const check = checks.get(at) ?? ajv.compile({ $ref: `api#${at}` });
    checks.set(at, check);
    return check;
  };
  const asked = fc
    .constantFrom(...operations.filter(({ operation }) => !LEFT_OUT.has(operation.operationId)))
    .chain(({ path, method, operation }) =>
      fc.record({
        ...{ path: fc.constant(path), method: fc.constant(method) },
        operation: fc.constant(operation),
        parts: fc.record(
          Object.fromEntries(
            operation.parameters.map(({ name, schema }) => [name ?? '', partOf(name, schema)]),
          ),
        ),
        body: bodyOf(operation),
      }),
    );
  const seen = new Map<string, number>();
  for (const one of fc.sample(asked, { numRuns: cases(300), seed: 3100 })) {
    const { path, method, operation, parts, body } = one;
    const values = parts as Readonly<Record<string, string>>;
    const filled = path.replace(/\{(\w+)\}/g, (_all, name: string) =>
      encodeURIComponent(values[name] ?? ''),
    );
    const query = operation.parameters
      .filter(({ in: place, name }) => place === 'query' && values[name ?? ''] !== undefined)
      .map(({ name = '' }) => `${name}=${encodeURIComponent(values[name] ?? '')}`);
    const call = bench.call(method as Method, [filled, ...query].join(query.length > 0 ? '?' : ''));
    const answer = await (method === 'get' ? call : call.send(body as object | undefined));
    const { status } = answer;
    const what = `${method} ${filled} ${JSON.stringify(body)?.slice(0, 300)}`;
    expect([what, status < 500 || status === 503]).toEqual([what, true]);
    const at = `${Math.floor(status / 100)} ${operation.operationId}`;
    seen.set(at, (seen.get(at) ?? 0) + 1);
    const isSaid = String(status) in operation.responses;
    expect([what, isSaid || status >= 400]).toEqual([what, true]);
    if (!isSaid) {
      const check = checkOf('/components/responses/Refused/content/application~1json/schema');
      expect([what, check(answer.body), check.errors]).toEqual([what, true, null]);
    } else if (operation.responses[status]?.content?.['application/json']) {
      const place = path.replace(/~/g, '~0').replace(/\//g, '~1');
      const check = checkOf(
        `/paths/${place}/${method}/responses/${status}/content/application~1json/schema`,
      );
      expect([what, check(answer.body), check.errors]).toEqual([what, true, null]);
    }
  }
  const good = operations.filter(({ operation }) => seen.has(`2 ${operation.operationId}`));
  // Most acts were done, not only refused.
  expect(good.length).toBeGreaterThan(30);
}, 120_000);

const partOf = (name: string | undefined, schema: Schema | undefined): fc.Arbitrary<unknown> => {
  const own = known()[name as 'job'];
  return own === undefined
    ? rightOf(schema ?? { type: 'string' }, '')
    : fc.oneof({ weight: 9, arbitrary: fc.constant(own) }, { weight: 1, arbitrary: fc.uuid() });
};

function bodyOf({ requestBody }: Operation): fc.Arbitrary<unknown> {
  const schema = requestBody?.content?.['application/json']?.schema;
  if (schema) return rightOf(schema, '');
  return requestBody ? fc.string() : fc.constant(undefined);
}
