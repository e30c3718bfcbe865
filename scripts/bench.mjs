// npm run bench [-- web]: the figures, or a group of them; medians, side by side with a reference in the same run.
import { mayMakeNamespaces } from './lib/steps.mjs';
import { runWithDatabase } from './lib/with-database.mjs';

const packages = ['chromium-headless-shell', 'iproute2', 'dnsmasq-base', 'fping'];
const env = { BENCH_WIRE: mayMakeNamespaces() ? '1' : '0' };
const names = process.argv.slice(2);
process.exit(await runWithDatabase('bench', 'e2e/bench/main.ts', packages, env, names));
