/**
 * How many cases a property is tried with: as many as find faults in a quick run, many times as many in the long one
 * (`npm run soak`).
 */
export const cases = (quick: number): number => quick * LONGER;

const LONGER = Number(process.env['IPSONOMO_SOAK'] ?? 1);
