/** One retry in `npm test`, told of in its last lines; none while somebody works on a test. */
const RETRY = `${__dirname}/scripts/lib/test/retry-once.cjs`;

const nodeProject = (dir) => ({
  displayName: dir,
  rootDir: `${__dirname}/${dir}`,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/test/**/*.test.ts'],
  setupFilesAfterEnv: [RETRY],
  transform: {
    '\\.[jt]sx?$': [
      'babel-jest',
      {
        configFile: false,
        babelrc: false,
        presets: [['@babel/preset-typescript', { allowDeclareFields: true }]],
        plugins: ['@babel/plugin-transform-modules-commonjs'],
      },
    ],
  },
});

module.exports = {
  // Compiling a thread's program on a loaded machine has taken over 5 s; no unit test measures time.
  testTimeout: 30_000,
  projects: [
    nodeProject('core'),
    nodeProject('practice'),
    nodeProject('server'),
    {
      displayName: 'app',
      preset: 'jest-expo',
      rootDir: `${__dirname}/app`,
      testMatch: ['<rootDir>/test/**/*.test.{ts,tsx}'],
      setupFilesAfterEnv: ['<rootDir>/test/setup.ts', RETRY],
      transformIgnorePatterns: [
        '/node_modules/(?!(.pnpm|react-native|@react-native|@react-native-community|expo|@expo|react-navigation|@react-navigation|standard-navigation|@rneui))',
        '/node_modules/react-native-reanimated/plugin/',
        '/node_modules/@react-native/babel-preset/',
      ],
    },
  ],
};
