/** The workspaces, each after those that it imports from. */
export const ROOMS = [
  'core',
  'language',
  'contract',
  'threads',
  'practice',
  'wire',
  'handover',
  'server',
  'app',
];
