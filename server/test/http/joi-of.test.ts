import Ajv2020 from 'ajv/dist/2020';
import fc from 'fast-check';
import { acts, isFile, type AnyAct, type Schema } from '@ipsonomo/contract';
import { cases } from '../../../core/test/cases';
import { joiOf } from '../../src/http/joi-of';

// What Joi takes is what the schema allows, by another reader of it (Ajv): over every body of the contract.

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
const ajv = new Ajv2020({ formats: { uuid: UUID }, allowUnionTypes: true });

const bodies = (Object.entries(acts) as readonly [string, AnyAct][]).flatMap(([name, { body }]) =>
  body && !isFile(body) ? [[name, body as Schema] as const] : [],
);

/** Values near a schema: what fits, and what is a little off. */
function near(schema: Schema): fc.Arbitrary<unknown> {
  const odd = fc.constantFrom<unknown>(
    null,
    '',
    ' a',
    'a b',
    -1,
    1.5,
    true,
    [],
    {},
    'x'.repeat(90),
  );
  return fc.oneof({ weight: 6, arbitrary: fits(schema) }, { weight: 1, arbitrary: odd });
}

function fits(schema: Schema): fc.Arbitrary<unknown> {
  if (schema.anyOf) return fc.oneof(...schema.anyOf.map(near));
  if (schema.enum) return fc.constantFrom(...schema.enum);
  switch (schema.type) {
    case 'string':
      return fc.oneof(fc.constantFrom('a', '10.0.0.1', 'a b'), fc.uuid(), fc.string());
    case 'integer':
    case 'number':
      return fc.integer({
        ...{ min: Math.floor(schema.minimum ?? 0) - 1, max: Math.ceil(schema.maximum ?? 9) + 1 },
      });
    case 'boolean':
      return fc.boolean();
    case 'array':
      return fc.array(near(schema.items ?? {}), { maxLength: 3 });
    case 'object':
      return fc.record(
        Object.fromEntries(
          [...Object.entries(schema.properties ?? {}), ['other', {}] as const].map(
            ([name, one]) => [name, near(one)] as const,
          ),
        ),
        { requiredKeys: [] },
      );
    default:
      return fc.constant(null);
  }
}

test.each(bodies)('%s', (_name, body) => {
  const check = ajv.compile(body);
  const joi = joiOf(body);
  fc.assert(
    fc.property(near(body), (value) => {
      // Nothing at all is the empty object at the door; here each is asked as it is.
      fc.pre(value !== undefined);
      const isTaken = joi.validate(value, { convert: false }).error === undefined;
      expect(isTaken).toBe(check(value));
    }),
    { numRuns: cases(150), seed: 2020 },
  );
});
