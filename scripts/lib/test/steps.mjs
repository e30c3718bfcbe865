// The steps of `npm test`, in the order of their speed. Each lane is a queue; lanes run beside each other.
//   run({ only, result, workers }) → { command, env, tests: file → tests, byFile }
//   needs: Debian packages, servers among them, the database, namespaces
import { join } from 'node:path';
import { ROOMS } from '../rooms.mjs';
import { LOCAL, ROOT } from '../steps.mjs';
import { coverageArgs } from './coverage.mjs';
import { jestTests, playwrightTests } from './results.mjs';

const bin = (name) => join(ROOT, 'node_modules/.bin', name);
/** The native compiler has the types; the other one stays for the tools that are made with it. */
const TSC = join(ROOT, 'node_modules/ts7/bin/tsc');
const NODE = process.execPath;
const NOTHING = {};

const fixed = (...command) => ({ run: () => ({ command }), needs: NOTHING });

/** Clients, a relay and a neighbour of their own kind, for names, switch ports and sockets. */
const OTHERS = ['isc-dhcp-client', 'isc-dhcp-relay', 'lldpd'];
/** The kernel's routing as judge: translations, captures, and pings that say where they end. */
const ROUTES = ['nftables', 'tcpdump', 'iputils-ping'];
/** Who has one address, by others' asking. */
const ASKERS = ['arping', 'arp-scan'];
/** They read what is handed over, and say whether it is right; none of them serves anything. */
const READERS = ['bind9-utils', 'poppler-utils', 'nftables'];
/** Given our reservations, by their own check and in namespaces. */
const DHCP_SERVERS = ['dnsmasq-base', 'isc-dhcp-server', 'kea-dhcp4-server'];
/** Spoils what it is given, by another plan than ours. */
const SPOILERS = ['zzuf'];

const unit = {
  name: 'unit tests',
  lane: 'checks',
  after: ['build server'],
  needs: {
    ...{ database: true, packages: ['tshark', 'systemd', 'openssl', ...READERS] },
    servers: DHCP_SERVERS,
  },
  run: ({ only, result, workers, isMapped }) => ({
    command: [
      ...[
        'nice',
        bin('jest'),
        '--json',
        '--forceExit',
        '--outputFile',
        result,
        '--maxWorkers',
        String(workers),
      ],
      ...(isMapped ? coverageArgs() : []),
      ...(only?.title ? ['-t', escaped(only.title)] : []),
      ...(only ? ['--runTestsByPath', ...only.files] : []),
    ],
    env: { IPSONOMO_BUNDLES: join(ROOT, 'server/dist') },
    tests: jestTests,
    byFile: true,
  }),
};

const playwright = (folder) => (file) => playwrightTests(file, folder);

function playwrightRun(folder, { only, result, workers }) {
  return {
    command: [
      ...[bin('playwright'), 'test', '-c', folder, '--reporter', 'list,json'],
      ...['--workers', String(workers)],
      ...(only?.title ? ['-g', escaped(only.title)] : []),
      ...(only?.files.map((file) => file.replace(/^e2e\/(wire\/)?/, '')) ?? []),
    ],
    env: { PLAYWRIGHT_JSON_OUTPUT_FILE: result },
    tests: playwright(folder),
  };
}

const browser = {
  name: 'browser tests',
  lane: 'browser',
  after: ['build server', 'build application'],
  needs: {
    ...{
      database: true,
      packages: ['chromium-headless-shell', 'openssl', 'libnss3-tools', ...READERS],
    },
    servers: DHCP_SERVERS,
  },
  // Browser tests wait for most of their time: two a pair of cores fill each other's pauses.
  run: (asked) => playwrightRun('e2e', { ...asked, workers: 2 * asked.workers }),
};

const wire = {
  name: 'wire tests',
  lane: 'wire',
  after: ['build server'],
  needs: {
    ...{ database: true, namespaces: true, servers: OTHERS },
    packages: [
      'tshark',
      'iproute2',
      'udhcpc',
      'bootpc',
      'dnsmasq-base',
      ...ROUTES,
      ...ASKERS,
      ...SPOILERS,
    ],
  },
  run(asked) {
    const { command, ...rest } = playwrightRun('e2e/wire', asked);
    return { command: [join(ROOT, 'scripts/lib/test/own-network.sh'), ...command], ...rest };
  },
};

/**
 * What was found of a file that is the same, byte by byte, under the same rules of the same version, stands: every rule of
 * ours looks at one file alone.
 */
const kept = (what) => [
  ...['--cache', '--cache-strategy', 'content'],
  ...['--cache-location', join(LOCAL, `${what}.cache`)],
];

const escaped = (text) => text.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&');

const IMPORTS = ['--config', '.dependency-cruiser.cjs', '--output-type', 'err'];
const SOURCES = ROOMS.map((room) => `${room}/src`);

export const STEPS = [
  { name: 'build server', lane: 'build', ...fixed(NODE, 'scripts/build.mjs', 'server') },
  ...[...ROOMS, 'e2e'].map((room) => ({
    ...{ name: `types of ${room}`, lane: 'checks', ...fixed(TSC, '-p', room) },
  })),
  { name: 'format', lane: 'checks', ...fixed(bin('prettier'), ...kept('format'), '--check', '.') },
  { name: 'import table', lane: 'checks', ...fixed(bin('depcruise'), ...IMPORTS, ...SOURCES) },
  { name: 'API description', lane: 'checks', ...fixed(NODE, 'scripts/api.mjs', '--check') },
  { name: 'build application', lane: 'build', ...fixed(NODE, 'scripts/build.mjs', 'app') },
  {
    name: 'lint',
    lane: 'checks',
    ...fixed(bin('eslint'), ...kept('lint'), '--max-warnings', '0', '.'),
  },
  unit,
  wire,
  browser,
];
