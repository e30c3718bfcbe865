// What Expo's own transformer would write into its modules.
process.env.EXPO_OS = 'web';

/** One retry in `npm test`, told of in its last lines; none while somebody works on a test. */
const RETRY = `${__dirname}/scripts/lib/test/retry-once.cjs`;

/** `npm test` builds the server first: a thread then starts from its bundle. */
const BUNDLES = `${__dirname}/threads/test/bundles.ts`;

/** Types are the compiler's concern: here they are only taken off, by the fastest that can. */
const SWC = [
  '@swc/jest',
  {
    swcrc: false,
    sourceMaps: 'inline',
    module: { type: 'commonjs' },
    jsc: {
      target: 'es2022',
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
    },
  },
];

/** Of jest-expo: the web target's files, environment and assets. */
const { transform, watchPlugins: _plugins, ...WEB } = require('jest-expo/web/jest-preset');
const ASSETS = Object.fromEntries(
  Object.entries(transform).filter(([, by]) => by !== 'babel-jest' && by[0] !== 'babel-jest'),
);

/** Packages that come as modules of ECMAScript alone. */
const MODULES = 'intl-messageformat|@formatjs';

/** Plain Node: also for what is pure of the application, which needs none of React Native's 750 modules. */
const nodeProject = (dir, displayName = dir) => ({
  displayName,
  rootDir: `${__dirname}/${dir}`,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/test/**/*.test.ts'],
  setupFilesAfterEnv: [RETRY],
  transform: { '\\.[jt]sx?$': SWC },
  transformIgnorePatterns: [`/node_modules/(?!(${MODULES})/)`],
});

module.exports = {
  // Compiling a thread's program on a loaded machine has taken over 5 s; no unit test measures time.
  testTimeout: 30_000 * Number(process.env.IPSONOMO_SOAK ?? 1),
  projects: [
    nodeProject('core'),
    nodeProject('language'),
    nodeProject('contract'),
    nodeProject('practice'),
    nodeProject('handover'),
    ...['threads', 'wire', 'server'].map((room) => ({
      ...nodeProject(room),
      setupFiles: [BUNDLES],
    })),
    nodeProject('app', 'app, pure'),
    {
      ...WEB,
      displayName: 'app, screens',
      rootDir: `${__dirname}/app`,
      testMatch: ['<rootDir>/test/**/*.test.tsx'],
      setupFilesAfterEnv: [RETRY],
      moduleNameMapper: {
        '^react-native$': 'react-native-web',
        '^expo-router$': '<rootDir>/test/router.tsx',
        ...WEB.moduleNameMapper,
      },
      // In place of Babel with everything a native target needs: that takes 40 s for 700 files.
      transform: { ...ASSETS, '\\.[jt]sx?$': SWC },
      transformIgnorePatterns: [
        `/node_modules/(?!(expo[a-z-]*|@expo|@rneui|react-native-[a-z-]+|${MODULES})/)`,
      ],
    },
  ],
};
