import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';

/** Smaller twins of files, what no page asks for, and the worker itself. */
const LEFT_OUT = /\.(br|gz|map|LICENSE)$|^metadata\.json$|^(service-worker\.js|files\.json)$/;
/** A name with a hash in it says what the file holds. */
const NAMED_BY_CONTENT = /-[0-9a-f]{32}\.\w+$/;

/** Every file of the application as a page asks for it, with its revision. */
export function filesOf(folder) {
  return readdirSync(folder, { recursive: true })
    .map((name) => relative(folder, join(folder, name)))
    .filter((name) => !LEFT_OUT.test(name) && statSync(join(folder, name)).isFile())
    .sort()
    .map((name) => ({
      url: `/${name}`,
      revision: NAMED_BY_CONTENT.test(name)
        ? null
        : createHash('sha256')
            .update(readFileSync(join(folder, name)))
            .digest('hex')
            .slice(0, 16),
    }));
}

/** What a page over plain HTTP, which may have no worker, loads ahead. */
export function listFiles(dist) {
  const urls = filesOf(dist).map(({ url }) => url);
  writeFileSync(join(dist, 'files.json'), JSON.stringify(urls));
}

/** The worker that opens the application without a network, with the list of its files. @param root of the repository */
export async function buildServiceWorker(root, dist) {
  const { build } = await import('esbuild');
  await build({
    entryPoints: [join(root, 'app/src/offline/service-worker.ts')],
    outfile: join(dist, 'service-worker.js'),
    ...{ bundle: true, minify: true, format: 'iife', target: 'es2022', logLevel: 'error' },
    define: { FILES: JSON.stringify(filesOf(dist)), 'process.env.NODE_ENV': '"production"' },
  });
}
