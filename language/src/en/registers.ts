import { CODES } from '@ipsonomo/core/codes';
import type { FactsOf } from '@ipsonomo/core/plan';

const ITSELF = 255;

/** What a register came to, as a clause. */
export function registerWords({
  unit,
  area,
  written,
  value,
  exception,
  why,
}: FactsOf<'register-read'>): string {
  const who = unit === ITSELF ? 'the device itself' : `unit ${unit}`;
  const what = `${who}, ${area} register ${written}`;
  if (value !== undefined) {
    const hex = value.toString(16).toUpperCase().padStart(4, '0');
    return `${what}: ${value} (0x${hex})`;
  }
  if (exception === undefined) return `${what}: no answer (${why})`;
  const meaning = CODES.modbus[exception];
  return `${what}: exception ${exception}${meaning ? `: ${meaning.means} ${meaning.look}` : ''}`;
}
