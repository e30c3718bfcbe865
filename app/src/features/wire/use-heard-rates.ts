import { useState } from 'react';
import type { AdapterView } from '@ipsonomo/core/api';

/** Frames a second that come in, by the name of the adapter. */
export type HeardRates = ReadonlyMap<string, number>;

interface Counted {
  readonly of: readonly AdapterView[];
  readonly at: number;
  readonly rates: HeardRates;
}

/**
 * How much each adapter hears, from two looks at its counters: nothing is sent for it, and nothing is listened to. It is
 * how one tells the cable of the machine from that of the office.
 * @param at when they were looked at, in milliseconds
 */
export function useHeardRates(
  adapters: readonly AdapterView[] | undefined,
  at: number,
): HeardRates {
  const [last, setLast] = useState<Counted>({ of: [], at: 0, rates: new Map() });
  if (adapters && at !== last.at) setLast(counted(last, adapters, at));
  return last.rates;
}

function counted(before: Counted, of: readonly AdapterView[], at: number): Counted {
  const seconds = (at - before.at) / 1000;
  const rates = of.flatMap(({ name, received }) => {
    const known = before.of.find((one) => one.name === name);
    if (!known || seconds <= 0 || received < known.received) return [];
    return [[name, Math.round((received - known.received) / seconds)] as const];
  });
  return { of, at, rates: new Map(rates) };
}
