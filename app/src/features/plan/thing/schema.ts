import { isObject, type Json, type JsonObject } from '@ipsonomo/core/plan';

// What a form needs to know of a value, from the JSON Schema that the shapes of core give.

export type Form =
  | { readonly kind: 'text'; readonly most: number }
  | { readonly kind: 'number' }
  | { readonly kind: 'flag' }
  | { readonly kind: 'choice'; readonly options: readonly string[] }
  | { readonly kind: 'maybe'; readonly of: JsonObject }
  | { readonly kind: 'list'; readonly of: JsonObject }
  | { readonly kind: 'object'; readonly fields: readonly (readonly [string, JsonObject])[] }
  | { readonly kind: 'variant'; readonly variants: ReadonlyMap<string, JsonObject> };

const list = (json: Json | undefined): readonly JsonObject[] =>
  Array.isArray(json) ? (json as readonly Json[]).filter(isObject) : [];

/** @example formOf({ type: 'integer' }) // { kind: 'number' } */
export function formOf(schema: JsonObject): Form {
  if (Array.isArray(schema['enum']))
    return { kind: 'choice', options: (schema['enum'] as readonly Json[]).map(String) };
  const any = list(schema['anyOf']);
  const inner = any.find((one) => one['type'] !== 'null');
  if (any.some((one) => one['type'] === 'null') && inner) return { kind: 'maybe', of: inner };
  if (schema['oneOf']) return { kind: 'variant', variants: variantsOf(list(schema['oneOf'])) };
  const { type, items, properties, maxLength } = schema;
  if (type === 'array' && isObject(items)) return { kind: 'list', of: items };
  if (type === 'object' && isObject(properties))
    return {
      kind: 'object',
      fields: Object.entries(properties).flatMap(([name, one]) =>
        isObject(one) ? [[name, one] as const] : [],
      ),
    };
  if (type === 'integer') return { kind: 'number' };
  if (type === 'boolean') return { kind: 'flag' };
  return { kind: 'text', most: typeof maxLength === 'number' ? maxLength : 200 };
}

/** The word that tells a variant, with the schema of the rest. */
function variantsOf(all: readonly JsonObject[]): ReadonlyMap<string, JsonObject> {
  return new Map(
    all.flatMap((one) => {
      const [first] = list(one['allOf']);
      const head = first?.['properties'];
      const kind = isObject(head) && isObject(head['kind']) ? head['kind']['const'] : undefined;
      const fields = isObject(one['properties']) ? one['properties'] : {};
      const { kind: _kind, ...properties } = fields;
      return typeof kind === 'string' ? [[kind, { ...one, properties }] as const] : [];
    }),
  );
}

/** A value to begin with where none is. */
export function emptyOf(schema: JsonObject): Json {
  if (schema['default'] !== undefined) return schema['default'];
  const form = formOf(schema);
  switch (form.kind) {
    case 'text':
      return '';
    case 'number':
      return typeof schema['minimum'] === 'number' ? schema['minimum'] : 0;
    case 'flag':
      return false;
    case 'choice':
      return form.options[0] ?? '';
    case 'maybe':
      return null;
    case 'list':
      return [];
    case 'object':
      return Object.fromEntries(form.fields.map(([name, one]) => [name, emptyOf(one)]));
    case 'variant': {
      const [first] = form.variants;
      if (!first) return {};
      const [kind, one] = first;
      return { kind, ...(emptyOf(one) as JsonObject) };
    }
  }
}
