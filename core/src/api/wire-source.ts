/** The adapter of a wire, by its source: `live:eth0` → `eth0`. Undefined of a practice site, and where there is none. */
export const adapterOf = (source: string | null | undefined): string | undefined =>
  /^live:(.*)$/.exec(source ?? '')?.[1];
