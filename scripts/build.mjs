// npm run build [server | app]: builds what changed.
import { buildApp, buildServer } from './lib/build.mjs';

const [only] = process.argv.slice(2);
if (only !== 'app') await buildServer();
if (only !== 'server') await buildApp();
