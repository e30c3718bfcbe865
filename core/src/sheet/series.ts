import { formatIpv4, parseIpv4, toIpv4 } from '../net';

/**
 * Continues what a person has begun: the last number in a text counts on, by the step between the
 * first two; an address by its value. What has no number is repeated, several texts in turn.
 * @example continueSeries(['Drive 1'], 2) // ['Drive 2', 'Drive 3']
 * @example continueSeries(['fh2-drive-08', 'fh2-drive-10'], 1) // ['fh2-drive-12']
 */
export function continueSeries(begun: readonly string[], count: number): readonly string[] {
  const last = begun.at(-1);
  if (last === undefined) return [];
  const next = addressStep(begun) ?? numberStep(begun);
  return Array.from({ length: count }, (_, index) =>
    next ? next(index + 1) : (begun[index % begun.length] ?? last),
  );
}

type Next = (steps: number) => string;

function addressStep(begun: readonly string[]): Next | undefined {
  const values = begun.map(parseIpv4).map((read) => (read.ok ? read.value : undefined));
  const last = values.at(-1);
  if (last === undefined || values.includes(undefined)) return undefined;
  const step = stepOf(values.map(Number));
  if (step === undefined) return undefined;
  return (steps) => {
    const value = last + step * steps;
    return value >= 0 && value <= 0xffffffff ? formatIpv4(toIpv4(value)) : '';
  };
}

const NUMBER = /^(.*?)(\d{1,9})(\D*)$/s;

function numberStep(begun: readonly string[]): Next | undefined {
  const parts = begun.map((text) => NUMBER.exec(text));
  const last = parts.at(-1);
  if (!last || parts.some((one) => one?.[1] !== last[1] || one?.[3] !== last[3])) return undefined;
  const step = stepOf(parts.map((one) => Number(one?.[2])));
  if (step === undefined) return undefined;
  const [, before = '', digits = '', after = ''] = last;
  return (steps) => {
    const value = Math.max(0, Number(digits) + step * steps);
    return `${before}${String(value).padStart(digits.length, '0')}${after}`;
  };
}

/** The one step between all of them; 1 where there is but one. */
function stepOf(values: readonly number[]): number | undefined {
  const [first = 0, second] = values;
  if (second === undefined) return 1;
  const step = second - first;
  const isEven = values.every((value, index) => value === first + step * index);
  return isEven ? step : undefined;
}
