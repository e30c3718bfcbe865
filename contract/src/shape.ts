/** JSON Schema, draft 2020-12, as far as it is used here. */
export interface Schema {
  readonly type?: 'string' | 'integer' | 'number' | 'boolean' | 'array' | 'object' | 'null';
  readonly description?: string;
  readonly format?: 'uuid';
  readonly pattern?: string;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly enum?: readonly (string | boolean | null)[];
  readonly items?: Schema;
  readonly minItems?: number;
  readonly maxItems?: number;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly additionalProperties?: boolean;
  readonly minProperties?: number;
  readonly anyOf?: readonly Schema[];
}

declare const value: unique symbol;

/** What is sent, as JSON Schema, and as a type. Sizes and forms only: whether a value is right is core's to say. */
export type Shape<T> = Schema & { readonly [value]?: Exactly<T> };

/** Of no wider and no narrower type: what may be left out in one may be left out in the other. */
interface Exactly<T> {
  readonly is: T;
  readonly takes: (given: T) => void;
}

export type ValueOf<S> = S extends Shape<infer T> ? T : never;

/** Up to so many characters; may be empty. */
export const text = (maxLength: number): Shape<string> => ({ type: 'string', maxLength });

/** At least one character that is seen, and no space around it. */
export const said = (maxLength: number): Shape<string> => ({
  ...{ type: 'string', minLength: 1, maxLength, pattern: '^\\S([\\s\\S]*\\S)?$' },
  description: 'a text without space around it',
});

export const matching = (
  pattern: string,
  maxLength: number,
  description: string,
): Shape<string> => ({ type: 'string', pattern, maxLength, description });

/** An id that the server gave. */
export const uuid: Shape<string> = { type: 'string', format: 'uuid' };

/** Of a thing of a plan, which may have come with a plan file. */
export const thingId: Shape<string> = matching('^[\\w.:-]{1,80}$', 80, 'an id');

export const flag: Shape<boolean> = { type: 'boolean' };

export const whole = (minimum: number, maximum: number): Shape<number> => ({
  ...{ type: 'integer', minimum, maximum },
});

export const number = (minimum?: number, maximum?: number): Shape<number> => ({
  type: 'number',
  ...(minimum === undefined ? {} : { minimum }),
  ...(maximum === undefined ? {} : { maximum }),
});

export const choice = <const T extends string>(...options: readonly T[]): Shape<T> => ({
  type: 'string',
  enum: options,
});

export const orNull = <T>(shape: Shape<T>): Shape<T | null> => ({
  anyOf: [shape, { type: 'null' }],
});

export const list = <T>(items: Shape<T>, most: number, least = 0): Shape<readonly T[]> => ({
  ...{ type: 'array', items, maxItems: most },
  ...(least > 0 ? { minItems: least } : {}),
});

type Fields = Readonly<Record<string, Schema>>;
type Needed<F> = { readonly [K in keyof F]: ValueOf<F[K]> };
type Free<F> = { readonly [K in keyof F]?: ValueOf<F[K]> };

/** An object with these fields, those of `free` may be left out; one that is not among them is refused. */
export function object<F extends Fields>(fields: F): Shape<Needed<F>>;
export function object<F extends Fields, O extends Fields>(
  fields: F,
  free: O,
): Shape<Needed<F> & Free<O>>;
export function object(fields: Fields, free: Fields = {}): Schema {
  return {
    type: 'object',
    properties: { ...fields, ...free },
    required: Object.keys(fields),
    additionalProperties: false,
  };
}

/** Any object; core reads it, and names what is wrong with it. */
export const anyObject = <T>(): Shape<T> => ({ type: 'object' });

/** One of several. */
export const either = <const S extends readonly Schema[]>(
  ...shapes: S
): Shape<ValueOf<S[number]>> => ({ anyOf: shapes });
