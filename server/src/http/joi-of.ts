import Joi from 'joi';
import type { Schema } from '@ipsonomo/contract';

/** The check that a schema of the contract stands for. */
export function joiOf(schema: Schema): Joi.Schema {
  if (schema.anyOf) return eitherOf(schema.anyOf);
  if (schema.enum) return Joi.valid(...schema.enum);
  switch (schema.type) {
    case 'string':
      return textOf(schema);
    case 'integer':
      return within(Joi.number().integer(), schema);
    case 'number':
      return within(Joi.number(), schema);
    case 'boolean':
      return Joi.boolean();
    case 'array':
      return listOf(schema);
    case 'object':
      return objectOf(schema);
    default:
      return Joi.valid(null);
  }
}

function eitherOf(schemas: readonly Schema[]): Joi.Schema {
  const others = schemas.filter((one) => one.type !== 'null');
  const [first] = others;
  const one =
    others.length === 1 && first ? joiOf(first) : Joi.alternatives().try(...others.map(joiOf));
  return others.length === schemas.length ? one : one.allow(null);
}

function textOf({ format, pattern, minLength = 0, maxLength, description }: Schema): Joi.Schema {
  if (format === 'uuid') return Joi.string().uuid();
  let text = Joi.string();
  if (minLength > 0) text = text.min(minLength);
  else if (pattern === undefined) text = text.allow('');
  if (maxLength !== undefined) text = text.max(maxLength);
  if (pattern === undefined) return text;
  const why = description ? { 'string.pattern.base': `must be ${description}` } : {};
  return text.pattern(new RegExp(pattern)).messages(why);
}

function within(number: Joi.NumberSchema, { minimum, maximum }: Schema): Joi.Schema {
  const least = minimum === undefined ? number : number.min(minimum);
  return maximum === undefined ? least : least.max(maximum);
}

function listOf({ items, minItems = 0, maxItems }: Schema): Joi.Schema {
  const list = Joi.array()
    .items(items ? joiOf(items) : Joi.any())
    .min(minItems);
  return maxItems === undefined ? list : list.max(maxItems);
}

function objectOf({ properties, required = [], additionalProperties = true }: Schema): Joi.Schema {
  const fields = Object.entries(properties ?? {}).map(([name, schema]) => {
    const field = joiOf(schema);
    return [name, required.includes(name) ? field.required() : field] as const;
  });
  return Joi.object(Object.fromEntries(fields)).unknown(additionalProperties);
}
