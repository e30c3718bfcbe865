import { bundles } from '../../threads/src/open-worker';

// `npm test` builds the server first: a thread then starts from its bundle, which saves a second of compiling each.
const built = process.env['IPSONOMO_BUNDLES'];
if (built) bundles.folder = built;
