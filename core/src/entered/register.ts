import { ok, refuse, type Result } from '../net';
import type { ConnectionEnd } from '../plan';
import { registerFrom0 } from '../snags';

/** One register, counted from 0. */
interface RegisterAsked {
  readonly area: 'holding' | 'input';
  readonly register: number;
}

const MOST = 65_535;

/**
 * A register as a person writes it. With an area digit, 4 are holding and 3 input registers; without one it is a holding
 * register. Refuses with `entered.number`, `register.area`, `register.range`.
 * @example registerAsked('40108', 'area-digit') // { area: 'holding', register: 107 }
 */
export function registerAsked(
  written: string,
  counting: ConnectionEnd['counting'],
): Result<RegisterAsked> {
  const text = written.trim();
  if (!/^\d{1,6}$/.test(text)) return refuse('entered.number', text);
  const digit = text[0];
  if (counting === 'area-digit' && (text.length < 5 || (digit !== '3' && digit !== '4')))
    return refuse('register.area', text);
  const register = registerFrom0(Number(text), counting);
  if (register < 0 || register > MOST) return refuse('register.range', text);
  const area = counting === 'area-digit' && digit === '3' ? 'input' : 'holding';
  return ok({ area, register });
}
