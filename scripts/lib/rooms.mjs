/** The workspaces, each after those that it imports from. */
export const ROOMS = ['core', 'contract', 'threads', 'practice', 'wire', 'server', 'app'];
