/**
 * Plans, and what is made of them, are kept in memory for so many jobs, those that were asked for last: a server of
 * hundreds of jobs must not hold them all.
 */
export const MOST_KEPT = 24;
