import type { Request } from 'express';
import Joi from 'joi';
import { unwritableIn, visibleText } from '@ipsonomo/core';
import { Refusal } from '../store/refusal';
import type { Person } from '../service/change-plan';

/** Checks what comes in against its schema; every part that is wrong is named. */
export function checked<T>(schema: Joi.ObjectSchema<T>, input: unknown): T {
  const { error, value } = schema.validate(input ?? {}, {
    abortEarly: false,
    convert: false,
    errors: { label: false },
  });
  if (!error) return writable(value);
  throw new Refusal(
    error.details.map((detail) => ({
      code: 'body.invalid',
      where: detail.path.join('.') || 'request',
      facts: { why: detail.message },
    })),
  );
}

/** What comes further can be kept: no text in it would be refused by the database. */
function writable<T>(value: T): T {
  const found = unwritableIn(value);
  if (!found) return value;
  throw Refusal.of('body.invalid', found.where || 'request', { why: found.why });
}

const uuid = Joi.string().uuid();

/** A path parameter that is an id; anything else cannot exist. */
export function idOf(request: Request, name: string): string {
  const value = request.params[name];
  if (typeof value !== 'string' || uuid.validate(value).error)
    throw Refusal.of('thing.unknown', name);
  // One spelling from the door on: the database would take any, and everybody else only one.
  return value.toLowerCase();
}

/** A thing of a plan: its id may have come with a plan file. */
export function thingIdOf(request: Request, name: string): string {
  const value = request.params[name];
  if (typeof value !== 'string' || !/^[\w.:-]{1,80}$/.test(value))
    throw Refusal.of('thing.unknown', name);
  return value;
}

/** A whole number in a path or a query that may not be there; anything else is refused. */
export function wholeNumber(value: unknown, where: string): number {
  if (typeof value === 'string' && /^\d{1,9}$/.test(value)) return Number(value);
  throw Refusal.of('body.invalid', where, { why: 'must be a whole number' });
}

const MOST_NAME = 80;

/** Who is asking: a name the person chose, sent with every request. */
export function personOf(request: Request): Person {
  const header = request.header('x-person') ?? '';
  let name = '';
  try {
    name = visibleText(decodeURIComponent(header)).trim().slice(0, MOST_NAME);
  } catch {
    // A header that is no URI text is nobody's name.
  }
  return { name: name || 'nobody named' };
}
