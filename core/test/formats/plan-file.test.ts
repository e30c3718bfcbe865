import Ajv from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { planSchema, readPlanFile, writePlanFile } from '../../src/formats';
import { diffDocs, docOf, docOfPlan, firstDoc, planOf, SHELF, type PlanDoc } from '../../src/plan';
import { ThingMap } from '../../src/plan/thing-map';
import { siteOf } from '../snags/big-site';
import { PLAN, ROUTER, STATION, withDevices } from '../snags/world';

const full = (): PlanDoc => ({
  ...docOfPlan(withDevices(STATION, ROUTER)),
  kind: ThingMap.of(SHELF.map((kind) => docOf('kind', kind))),
});

const ajv = addFormats(new Ajv({ strict: false }));
const validate = ajv.compile(planSchema());

test.each<[string, PlanDoc]>([
  ['a new plan', firstDoc()],
  ['a small plan', docOfPlan(PLAN)],
  ['a plan with every kind of the shelf', full()],
  ['a plan of 300 devices', docOfPlan(siteOf(300))],
])('%s comes back from its file as it was', (name, doc) => {
  const text = writePlanFile({ name, doc });
  const read = readPlanFile(text);
  if (!read.ok) throw new Error(JSON.stringify(read.error));
  expect(read.value.name).toBe(name);
  expect(diffDocs(doc, read.value.doc)).toEqual([]);
  expect(planOf(read.value.doc)).toEqual(planOf(doc));
  expect(writePlanFile(read.value)).toBe(text);
  // ajv is the oracle: the file is what its own schema says.
  expect([validate(JSON.parse(text)), validate.errors]).toEqual([true, null]);
});

test('the schema in docs is the one the code makes', () => {
  const path = join(__dirname, '../../../docs/plan.schema.json');
  expect(existsSync(path) && JSON.parse(readFileSync(path, 'utf8'))).toEqual(planSchema());
});

const file = (fields: object) =>
  JSON.stringify({ format: 'ipsonomo-plan', version: 1, name: 'Hall', ...fields });
const SUBNET = { id: 's', name: 'Hall', realmId: 'realm', prefix: '10.4.0.0/24' };

// What is refused says where; ajv refuses the same wherever a schema can say it.
test.each<
  [string, string, readonly (readonly [code: string, where: string])[], boolean | undefined]
>([
  ['no JSON', '{"format": ', [['file.json', 'The file']], undefined],
  ['a list', '[]', [['file.format', 'format']], false],
  ['another format', '{"format":"other"}', [['file.format', 'format']], false],
  ['a newer version', file({ version: 2 }), [['file.version', '2']], false],
  ['no version', file({ version: undefined }), [['file.version', 'undefined']], false],
  ['no name', file({ name: undefined }), [['file.value', 'name']], false],
  ['an unknown list', file({ widgets: [] }), [['file.value', 'widgets']], false],
  ['no list', file({ subnets: {} }), [['file.value', 'subnets']], false],
  [
    'host bits and a missing field',
    file({ subnets: [{ ...SUBNET, prefix: '10.4.0.1/24', realmId: undefined }] }),
    [
      ['file.value', 'subnets.0.realmId'],
      ['prefix.hostBits', '10.4.0.1/24'],
    ],
    false,
  ],
  [
    'a field nobody knows',
    file({ subnets: [{ ...SUBNET, colour: 'red' }] }),
    [['file.value', 'subnets.0.colour']],
    false,
  ],
  [
    'a VLAN that is too high',
    file({ subnets: [SUBNET, { ...SUBNET, id: 't', vlan: 4095 }] }),
    [['file.value', 'subnets.1.vlan']],
    false,
  ],
  ['one id twice', file({ subnets: [SUBNET, SUBNET] }), [['file.twice', 'subnets.1']], true],
  ['a thing that is a text', file({ cables: ['x'] }), [['file.value', 'cables.0']], false],
])('%s is refused', (_name, text, wanted, schemaSays) => {
  const read = readPlanFile(text);
  const found = read.ok ? [] : read.error.map(({ code, where }) => [code, where]);
  expect(found.sort()).toEqual([...wanted].sort());
  if (schemaSays !== undefined) expect(validate(JSON.parse(text))).toBe(schemaSays);
});

test('a byte order mark and a $schema are no obstacle', () => {
  expect(readPlanFile(`\uFEFF${file({ $schema: './plan.schema.json' })}`).ok).toBe(true);
});
