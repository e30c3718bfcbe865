import { spawnSync } from 'node:child_process';

// An independent dissector from Debian's packages. CI must have it; elsewhere it may be missing.
const installed = spawnSync('tshark', ['--version']).status === 0;
export const withTshark = installed || process.env['CI'] ? describe : describe.skip;
if (!installed) console.warn('tshark is not installed: our frames are NOT checked against it');
