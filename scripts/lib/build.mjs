// Builds server and web application, each only when something it is made of changed.
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { CORE_DOORS } from './core-doors.mjs';
import { ROOMS } from './rooms.mjs';
import { buildServiceWorker, listFiles } from './service-worker.mjs';
import { LOCAL, note, ROOT, run } from './steps.mjs';

const FONTS = [
  ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin-wght-normal.woff2'],
  ['atkinson-hyperlegible-mono', 'atkinson-hyperlegible-mono-latin-wght-normal.woff2'],
];

function* filesUnder(path) {
  for (const entry of readdirSync(path, { withFileTypes: true })) {
    const full = join(path, entry.name);
    if (
      entry.isDirectory() &&
      !['node_modules', 'dist', 'fonts', 'wasm', '.expo'].includes(entry.name)
    )
      yield* filesUnder(full);
    else if (entry.isFile()) yield full;
  }
}

/** Where the lines of the page are to be told, its scripts bring maps of their sources. */
const WITH_MAPS = process.env.IPSONOMO_COVERAGE !== undefined;

function stampOf(paths) {
  const hash = createHash('sha1').update(readFileSync(join(ROOT, 'package-lock.json')));
  hash.update(String(WITH_MAPS));
  for (const path of paths)
    for (const file of [...filesUnder(join(ROOT, path))].sort())
      hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

async function whenChanged(name, paths, made, build) {
  const file = join(LOCAL, `${name}.built`);
  const stamp = stampOf(paths);
  if (existsSync(join(ROOT, made)) && existsSync(file) && readFileSync(file, 'utf8') === stamp)
    return;
  note(`building the ${name} …`);
  await build();
  mkdirSync(LOCAL, { recursive: true });
  writeFileSync(file, stamp);
}

const SERVER_SOURCES = ROOMS.filter((room) => room !== 'app').map((room) => `${room}/src`);

/** For esbuild, from its command line or its API. */
const SERVER_BUILD = {
  entryPoints: [
    'server/src/main.ts',
    'server/src/cli/ipsonomo.ts',
    'wire/src/wire.worker.ts',
    'server/src/lists/list.worker.ts',
    'server/src/packages/package.worker.ts',
    'server/src/descriptions/describe.worker.ts',
    'server/src/service/thinking.worker.ts',
    'server/src/service/plan-work.worker.ts',
    'practice/src/practice.worker.ts',
  ],
  bundle: true,
  entryNames: '[name]',
  platform: 'node',
  target: 'node20',
  format: 'cjs',
  packages: 'external',
  alias: {
    ...CORE_DOORS,
    '@ipsonomo/language/kept': './language/src/kept.ts',
    '@ipsonomo/language/relayed': './language/src/relayed.ts',
    '@ipsonomo/language/terminal': './language/src/terminal.ts',
    '@ipsonomo/language/swap': './language/src/swap.ts',
    '@ipsonomo/language/hand-over-files': './language/src/hand-over-files.ts',
    '@ipsonomo/language': './language/src/index.ts',
    '@ipsonomo/contract': './contract/src/index.ts',
    '@ipsonomo/practice': './practice/src/index.ts',
    '@ipsonomo/threads': './threads/src/index.ts',
    '@ipsonomo/wire': './wire/src/owner/index.ts',
    '@ipsonomo/handover': './handover/src/index.ts',
  },
  outdir: 'server/dist',
  sourcemap: true,
  absWorkingDir: ROOT,
  logLevel: 'error',
};

// Loaded once the packages are there: a fresh machine has none when this file is read.
const esbuild = () => import('esbuild');

export async function buildServer() {
  await whenChanged('server', SERVER_SOURCES, 'server/dist/main.js', async () => {
    await (await esbuild()).build(SERVER_BUILD);
  });
}

/** Builds the server at every change of its sources. @param built called after each build that went well */
export async function watchServer(built) {
  const plugin = {
    name: 'built',
    setup: (build) => build.onEnd(({ errors }) => errors.length === 0 && built()),
  };
  const context = await (await esbuild()).context({ ...SERVER_BUILD, plugins: [plugin] });
  await context.watch();
  return context;
}

/** The fonts that ship with the application, from their packages into what is served. */
export function copyFonts() {
  const target = join(ROOT, 'app/public/fonts');
  mkdirSync(target, { recursive: true });
  for (const [name, file] of FONTS) {
    const from = join(ROOT, 'node_modules/@fontsource-variable', name);
    cpSync(join(from, 'files', file), join(target, file));
    cpSync(join(from, 'LICENSE'), join(target, `${name}.LICENSE`));
  }
}

/** The reader of barcodes, which a browser loads when a picture is to be read. */
export function copyReader() {
  const target = join(ROOT, 'app/public/wasm');
  const from = join(ROOT, 'node_modules/zxing-wasm');
  mkdirSync(target, { recursive: true });
  cpSync(join(from, 'dist/reader/zxing_reader.wasm'), join(target, 'zxing_reader.wasm'));
  cpSync(join(from, 'LICENSE'), join(target, 'zxing-wasm.LICENSE'));
}

export async function buildApp() {
  await whenChanged(
    'web application',
    ['core/src', 'language/src', 'contract/src', 'app'],
    'app/dist/index.html',
    async () => {
      copyFonts();
      copyReader();
      run(
        process.execPath,
        [
          ...[
            join(ROOT, 'node_modules/expo/bin/cli'),
            'export',
            '-p',
            'web',
            '--output-dir',
            'dist',
          ],
          ...(WITH_MAPS ? ['--source-maps'] : []),
        ],
        {
          title: 'building the web application',
          cwd: join(ROOT, 'app'),
          env: { CI: '1', EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1' },
        },
      );
      listFiles(join(ROOT, 'app/dist'));
      await buildServiceWorker(ROOT, join(ROOT, 'app/dist'));
      pack(join(ROOT, 'app/dist'));
    },
  );
}

const PACKED = /\.(js|css|html|wasm|svg|json)$/;
/** A smaller file goes in one packet anyhow. */
const LEAST_PACKED = 1400;
/** The last step up takes five times as long and saves three hundredths. */
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 10 } };

/** Beside each file the same as Brotli and gzip have it: done once here, and not for every browser that comes. */
function pack(folder) {
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile() || !PACKED.test(entry.name)) continue;
    const path = join(entry.parentPath, entry.name);
    const bytes = readFileSync(path);
    if (bytes.length < LEAST_PACKED) continue;
    writeFileSync(`${path}.br`, brotliCompressSync(bytes, BROTLI));
    writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
  }
}
