import type { Request } from 'express';
import Joi from 'joi';
import { Refusal } from '../store/refusal';
import type { Person } from '../service/change-plan';

/** Checks what comes in against its schema; every part that is wrong is named. */
export function checked<T>(schema: Joi.ObjectSchema<T>, input: unknown): T {
  const { error, value } = schema.validate(input ?? {}, {
    abortEarly: false,
    convert: false,
    errors: { label: false },
  });
  if (!error) return value;
  throw new Refusal(
    error.details.map((detail) => ({
      code: 'body.invalid',
      where: detail.path.join('.') || 'request',
      facts: { why: detail.message },
    })),
  );
}

const uuid = Joi.string().uuid();

/** A path parameter that is an id; anything else cannot exist. */
export function idOf(request: Request, name: string): string {
  const value = request.params[name];
  if (typeof value !== 'string' || uuid.validate(value).error)
    throw Refusal.of('thing.unknown', name);
  return value;
}

/** A thing of a plan: its id may have come with a plan file. */
export function thingIdOf(request: Request, name: string): string {
  const value = request.params[name];
  if (typeof value !== 'string' || !/^[\w.:-]{1,80}$/.test(value))
    throw Refusal.of('thing.unknown', name);
  return value;
}

/** The browser that asks, undefined for what is none. */
export const browserOf = (request: Request): string | undefined =>
  /^[a-z0-9]{8,40}$/.exec(request.header('x-browser') ?? '')?.[0];

const MOST_NAME = 80;

/** Who is asking: a name the person chose, sent with every request. */
export function personOf(request: Request): Person {
  const header = request.header('x-person') ?? '';
  let name = '';
  try {
    name = decodeURIComponent(header).trim().slice(0, MOST_NAME);
  } catch {
    // A header that is no URI text is nobody's name.
  }
  return { name: name || 'nobody named' };
}
