// What a plan says of what was found before anybody planned it, and what a command line tells of bringing it in.

/** The mark and the names of things that were taken into a plan as they were found. */
export const FOUND_MARKS = {
  found: (source: string): string => `heard in ${source}`,
  guessed: (source: string): string => `heard in ${source}; its mask was guessed`,
  subnet: (network: string): string => `Network ${network}`,
  /** @param of its MAC, or its address where nobody told one */
  device: (of: string): string => `Found ${of}`,
} as const;

const counted = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;

export const IMPORT_TOLD = {
  outcome: ({ devices, edits }: { readonly devices: number; readonly edits: number }): string =>
    `${counted(devices, 'new device')}, ${counted(edits, 'change')} of the plan in all.`,
  nothingWritten: 'Nothing was written: say where with --out PLAN.',
} as const;
