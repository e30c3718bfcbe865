import { CODES } from '../codes';
import type { Facts } from '../plan';

const ITSELF = 255;

/** What a register came to, as a clause. */
export function registerWords({ unit, area, written, value, exception, why }: Facts): string {
  const who = unit === ITSELF ? 'the device itself' : `unit ${unit}`;
  const what = `${who}, ${area} register ${written}`;
  if (value !== undefined) {
    const hex = Number(value).toString(16).toUpperCase().padStart(4, '0');
    return `${what}: ${value} (0x${hex})`;
  }
  if (exception === undefined) return `${what}: no answer (${why})`;
  const meaning = CODES.modbus[Number(exception)];
  return `${what}: exception ${exception}${meaning ? `: ${meaning.means} ${meaning.look}` : ''}`;
}
