import type { Request } from 'express';
import type Joi from 'joi';
import { visibleText, unwritableIn } from '@ipsonomo/core/names';
import { NOBODY } from '../common/nobody';
import { Refusal } from '../store/refusal';

/** Checks what comes in against its schema; every part that is wrong is named. */
export function checked(schema: Joi.Schema, input: unknown): unknown {
  const { error, value } = schema.validate(input ?? {}, {
    abortEarly: false,
    convert: false,
    errors: { label: false },
  }) as Joi.ValidationResult<unknown>;
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
  throw Refusal.of('body.invalid', found.where || 'request', found.why);
}

const MOST_NAME = 80;

/** Who is asking: a name the person chose, sent with every request. */
export function nameOf(request: Request): string {
  const header = request.header('x-person') ?? '';
  let name = '';
  try {
    name = visibleText(decodeURIComponent(header)).trim().slice(0, MOST_NAME);
  } catch {
    // A header that is no URI text is nobody's name.
  }
  return name || NOBODY;
}
