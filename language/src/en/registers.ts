import type { FactsOf } from '@ipsonomo/core/plan';
import { codeWords } from './codes';

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
  const words = codeWords('modbus', exception);
  return `${what}: exception ${exception}${words ? `: ${words.means} ${words.look}` : ''}`;
}
