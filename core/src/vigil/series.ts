/**
 * What was heard of one device, beat by beat: tenths of a millisecond until it answered, or one of these. Sixteen bits, so
 * that hours of hundreds of devices stay small.
 */
export const LOST = 0xffff;
/** It was not asked in this beat: the laptop was busy, or asleep. */
export const NOT_ASKED = 0xfffe;
/** Asked, and its answer may still come. */
export const AWAITED = 0xfffd;
/** The longest delay that can be told: 6.5 s. */
const SLOWEST = 0xfffc;

/** @param millis until the answer came */
export const tenthsOf = (millis: number): number =>
  Math.max(0, Math.min(SLOWEST, Math.round(millis * 10)));

/** Some beats together, as a chart shows them. */
export interface Bucket {
  readonly asked: number;
  readonly lost: number;
  /** In milliseconds; undefined where nothing was answered. */
  readonly mean: number | undefined;
  readonly slowest: number | undefined;
}

/** A run of beats that were lost. */
interface Outage {
  /** The first lost beat, and how many. */
  readonly from: number;
  readonly beats: number;
}

export interface VigilSummary extends Bucket {
  readonly outages: number;
  /** Beats of the longest outage. */
  readonly longest: number;
  /** Beats from the beginning of one outage to that of the next, where they come in a beat of their own. */
  readonly period: number | undefined;
}

function bucketOf(values: ArrayLike<number>, from: number, end: number): Bucket {
  let [asked, lost, sum, answered, slowest] = [0, 0, 0, 0, 0];
  for (let at = from; at < end; at += 1) {
    const value = values[at] ?? NOT_ASKED;
    if (value === NOT_ASKED || value === AWAITED) continue;
    asked += 1;
    if (value === LOST) lost += 1;
    else {
      answered += 1;
      sum += value;
      slowest = Math.max(slowest, value);
    }
  }
  const isAnswered = answered > 0;
  return {
    ...{ asked, lost },
    mean: isAnswered ? sum / answered / 10 : undefined,
    slowest: isAnswered ? slowest / 10 : undefined,
  };
}

/** So many buckets at most, each of as many beats; the last may be shorter. */
export function bucketsOf(values: ArrayLike<number>, most: number): readonly Bucket[] {
  const size = Math.max(1, Math.ceil(values.length / most));
  return Array.from({ length: Math.ceil(values.length / size) }, (_, at) =>
    bucketOf(values, at * size, Math.min(values.length, (at + 1) * size)),
  );
}

/** Runs of lost beats; a beat that was not asked ends none. */
export function outagesOf(values: ArrayLike<number>): readonly Outage[] {
  const outages: Outage[] = [];
  let from = -1;
  for (let at = 0; at <= values.length; at += 1) {
    const value = at < values.length ? values[at] : 0;
    if (value === LOST && from < 0) from = at;
    const isOver = value !== LOST && value !== NOT_ASKED && value !== AWAITED;
    if (from >= 0 && (isOver || at === values.length)) {
      outages.push({ from, beats: at - from });
      from = -1;
    }
  }
  return outages;
}

const FEWEST = 4;
/** Intervals may differ from their median by so much. */
const TOLERANCE = 0.15;

/**
 * R-BEAT: outages that come in a beat of their own: at least four, and four of five intervals within 15 % of their median
 * (common practice, no source).
 * @returns the median interval in beats
 */
export function periodOf(outages: readonly Outage[]): number | undefined {
  if (outages.length < FEWEST) return undefined;
  const gaps = outages.slice(1).map(({ from }, at) => from - (outages[at]?.from ?? 0));
  const median = gaps.toSorted((a, b) => a - b)[Math.floor(gaps.length / 2)] ?? 0;
  // One beat more or less is the beat of the asking itself.
  const near = gaps.filter((gap) => Math.abs(gap - median) <= Math.max(1, median * TOLERANCE));
  return median >= 3 && near.length >= gaps.length * 0.8 ? median : undefined;
}

export function summaryOf(values: ArrayLike<number>): VigilSummary {
  const outages = outagesOf(values);
  return {
    ...bucketOf(values, 0, values.length),
    outages: outages.length,
    longest: Math.max(0, ...outages.map(({ beats }) => beats)),
    period: periodOf(outages),
  };
}
