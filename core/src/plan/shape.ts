import {
  formatIpv4,
  formatMac,
  formatPrefix,
  parseIpv4,
  parseMac,
  parsePrefix,
  type Ipv4,
  type Issue,
  type MacAddress,
  type Misfit,
  type Prefix,
  type Result,
} from '../net';
import { unwritable } from '../names';

/** A value as it stands in a plan file and on its way to the server. */
export type Json = null | boolean | number | string | readonly Json[] | JsonObject;
export type JsonObject = { readonly [field: string]: Json };

/**
 * One kind of value in both its forms: text in files and messages, numbers in computation. The table
 * of shapes (`things.ts`) is the one place that says what a plan consists of: reading, writing, the
 * list of fields and the JSON Schema all come from it.
 */
export interface Shape<T> {
  /**
   * Reads a value; everything wrong goes to `issues` with its path (`devices.3.address`), and the
   * result is then undefined.
   */
  read(json: Json | undefined, path: string, issues: Issue[]): T | undefined;
  write(value: T): Json;
  /** JSON Schema, draft 2020-12. */
  readonly schema: JsonObject;
  /** What an absent field means; a field without it must be there. */
  readonly absent?: () => T;
}

export type ValueOf<S> = S extends Shape<infer T> ? T : never;

function wrong(issues: Issue[], where: string, facts: Misfit): undefined {
  issues.push({ code: 'file.value', where, facts });
  return undefined;
}

const LONGEST_TEXT = 2000;

function writable(text: string, path: string, issues: Issue[]): string | undefined {
  const misfit = unwritable(text);
  return misfit === undefined ? text : wrong(issues, path, misfit);
}

export const text = (most = LONGEST_TEXT): Shape<string> => ({
  read: (json, path, issues) =>
    typeof json !== 'string'
      ? wrong(issues, path, { misfit: 'text' })
      : json.length > most
        ? wrong(issues, path, { misfit: 'too-long', have: json.length, most })
        : writable(json, path, issues),
  write: (value) => value,
  schema: { type: 'string', maxLength: most },
});

/** A text that may be left out, and then is empty. */
export const note = (most = LONGEST_TEXT): Shape<string> => absentAs(text(most), () => '');

export const id: Shape<string> = {
  read: (json, path, issues) =>
    typeof json === 'string' && /^[\w.:-]{1,80}$/.test(json)
      ? json
      : wrong(issues, path, { misfit: 'id' }),
  write: (value) => value,
  schema: { type: 'string', pattern: '^[\\w.:-]{1,80}$' },
};

export const sha256: Shape<string> = {
  read: (json, path, issues) =>
    typeof json === 'string' && /^[0-9a-f]{64}$/.test(json)
      ? json
      : wrong(issues, path, { misfit: 'sha-256' }),
  write: (value) => value,
  schema: { type: 'string', pattern: '^[0-9a-f]{64}$' },
};

export const whole = (least: number, most: number): Shape<number> => ({
  read: (json, path, issues) =>
    typeof json === 'number' && Number.isInteger(json) && json >= least && json <= most
      ? json
      : wrong(issues, path, { misfit: 'integer', least, most }),
  write: (value) => value,
  schema: { type: 'integer', minimum: least, maximum: most },
});

export const flag = (absent = false): Shape<boolean> => ({
  read: (json, path, issues) =>
    typeof json === 'boolean' ? json : wrong(issues, path, { misfit: 'boolean' }),
  write: (value) => value,
  schema: { type: 'boolean', default: absent },
  absent: () => absent,
});

export const choice = <const T extends string>(...options: readonly T[]): Shape<T> => ({
  read: (json, path, issues) =>
    options.find((option) => option === json) ??
    wrong(issues, path, { misfit: 'choice', options: options.join(', ') }),
  write: (value) => value,
  schema: { enum: options },
});

/** A value of `core/net` written as text; the parser's own refusal is kept as the reason. */
function written<T>(
  parse: (text: string) => Result<T>,
  format: (value: T) => string,
  schema: JsonObject,
): Shape<T> {
  return {
    read(json, path, issues) {
      if (typeof json !== 'string') return wrong(issues, path, { misfit: 'text' });
      const read = parse(json);
      if (read.ok) return read.value;
      // The same refusal, and where in the file it is.
      issues.push({ ...read.error, facts: { ...read.error.facts, path } } as Issue);
      return undefined;
    },
    write: format,
    schema,
  };
}

export const ipv4: Shape<Ipv4> = written(parseIpv4, formatIpv4, {
  type: 'string',
  format: 'ipv4',
});
export const prefix: Shape<Prefix> = written(parsePrefix, formatPrefix, {
  type: 'string',
  pattern: '^[0-9.]+/[0-9]{1,2}$',
});
export const mac: Shape<MacAddress> = written(parseMac, formatMac, {
  type: 'string',
  pattern: '^[0-9a-f]{2}(:[0-9a-f]{2}){5}$',
});

export function absentAs<T>(shape: Shape<T>, absent: () => T): Shape<T> {
  return { ...shape, absent };
}

/** `null` or nothing in the file, undefined in computation. */
export const maybe = <T>(shape: Shape<T>): Shape<T | undefined> => ({
  read: (json, path, issues) => (json === null ? undefined : shape.read(json, path, issues)),
  write: (value) => (value === undefined ? null : shape.write(value)),
  schema: { anyOf: [{ type: 'null' }, shape.schema] },
  absent: () => undefined,
});

/** One of these words, or a value of the shape. */
export const wordOr = <const W extends string, T>(
  words: readonly W[],
  shape: Shape<T>,
): Shape<T | W> => ({
  read: (json, path, issues) =>
    words.find((word) => word === json) ?? shape.read(json, path, issues),
  write: (value) => words.find((word) => (value as unknown) === word) ?? shape.write(value as T),
  schema: { anyOf: [{ enum: words }, shape.schema] },
});

const MOST_ENTRIES = 100_000;

export const list = <T>(shape: Shape<T>, most = MOST_ENTRIES): Shape<readonly T[]> => ({
  read(json, path, issues) {
    if (!Array.isArray(json)) return wrong(issues, path, { misfit: 'list' });
    if (json.length > most)
      return wrong(issues, path, { misfit: 'too-many', have: json.length, most });
    return (json as readonly Json[]).flatMap((entry, index) => {
      const value = shape.read(entry, `${path}.${index}`, issues);
      return value === undefined ? [] : [value];
    });
  },
  write: (values) => values.map((value) => shape.write(value)),
  schema: { type: 'array', items: shape.schema, maxItems: most },
  absent: () => [],
});

type ObjectOf<F> = { readonly [K in keyof F]: ValueOf<F[K]> };

/** The shape of an object, with the table of its fields. */
export interface ObjectShape<T> extends Shape<T> {
  readonly fields: Readonly<Record<string, Shape<unknown>>>;
}

/** An object with exactly these fields; one that is not among them is refused, never dropped. */
export function object<const F extends { readonly [K in keyof F]: Shape<unknown> }>(
  fields: F,
): ObjectShape<ObjectOf<F>> {
  const table = fields as unknown as Readonly<Record<string, Shape<unknown>>>;
  const names = Object.keys(table);
  return {
    fields: table,
    read(json, path, issues) {
      if (!isObject(json)) return wrong(issues, path, { misfit: 'object' });
      const before = issues.length;
      for (const name of Object.keys(json))
        if (!(name in table)) wrong(issues, joined(path, name), { misfit: 'unknown' });
      const value: Record<string, unknown> = {};
      for (const name of names)
        value[name] = readField(table[name], json[name], joined(path, name), issues);
      return issues.length > before ? undefined : (value as ObjectOf<F>);
    },
    write: (value) =>
      Object.fromEntries(
        names.map((name) => [
          name,
          table[name]?.write((value as Record<string, unknown>)[name]) ?? null,
        ]),
      ),
    schema: {
      type: 'object',
      properties: Object.fromEntries(names.map((name) => [name, table[name]?.schema ?? {}])),
      required: names.filter((name) => !table[name]?.absent),
      additionalProperties: false,
    },
  };
}

function readField(
  shape: Shape<unknown> | undefined,
  json: Json | undefined,
  path: string,
  issues: Issue[],
): unknown {
  if (json !== undefined) return shape?.read(json, path, issues);
  return shape?.absent ? shape.absent() : wrong(issues, path, { misfit: 'missing' });
}

/** One of several objects, told apart by the word in their field `kind`. */
export function variant<const V extends Readonly<Record<string, ObjectShape<unknown>>>>(
  variants: V,
): Shape<{ readonly [K in keyof V]: { readonly kind: K } & ValueOf<V[K]> }[keyof V]> {
  type T = { readonly [K in keyof V]: { readonly kind: K } & ValueOf<V[K]> }[keyof V];
  const kinds = Object.keys(variants);
  return {
    read(json, path, issues) {
      if (!isObject(json)) return wrong(issues, path, { misfit: 'object' });
      const { kind, ...rest } = json;
      const shape = typeof kind === 'string' ? variants[kind] : undefined;
      if (!shape)
        return wrong(issues, joined(path, 'kind'), { misfit: 'choice', options: kinds.join(', ') });
      const value = shape.read(rest, path, issues);
      return value === undefined ? undefined : ({ ...value, kind } as unknown as T);
    },
    write(value) {
      const { kind, ...rest } = value as { readonly kind: string };
      return { kind, ...(variants[kind]?.write(rest) as JsonObject | undefined) };
    },
    schema: {
      oneOf: kinds.map((kind) => ({
        allOf: [{ properties: { kind: { const: kind } }, required: ['kind'] }],
        ...looser(variants[kind]?.schema),
      })),
    },
  };
}

/** The schema of a variant with its `kind` among the fields. */
const looser = (schema: JsonObject | undefined): JsonObject =>
  schema ? { ...schema, properties: { kind: {}, ...(schema['properties'] as JsonObject) } } : {};

export const isObject = (json: unknown): json is JsonObject =>
  typeof json === 'object' && json !== null && !Array.isArray(json);

const joined = (path: string, name: string): string => (path === '' ? name : `${path}.${name}`);

/** Are two values of a plan file the same? The order of an object's fields does not count. */
export function sameJson(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return (
      a.length === b.length && a.every((one, index) => sameJson(one as Json, b[index] as Json))
    );
  if (!isObject(a) || !isObject(b)) return false;
  const names = Object.keys(a);
  return (
    names.length === Object.keys(b).length && names.every((name) => sameJson(a[name], b[name]))
  );
}
