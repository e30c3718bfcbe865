const { defineConfig } = require('eslint/config');
const expo = require('eslint-config-expo/flat');
const prettier = require('eslint-config-prettier');
const globals = require('globals');

/** Rules for components, which take half of the time and find nothing where there are none. */
const FOR_COMPONENTS = Object.fromEntries(
  expo
    .flatMap(({ rules = {} }) => Object.keys(rules))
    .filter((rule) => /^(react|react-hooks|jsx-a11y)\//.test(rule))
    .map((rule) => [rule, 'off']),
);

module.exports = defineConfig([
  { ignores: ['**/dist/**', '.local/**', '**/.expo/**', 'test-results/**', 'app/expo-env.d.ts'] },
  ...expo,
  prettier,
  {
    files: [
      'core',
      'language',
      'contract',
      'threads',
      'practice',
      'wire',
      'handover',
      'server',
      'e2e',
      'scripts',
    ].map((room) => `${room}/**`),
    rules: FOR_COMPONENTS,
  },
  { files: ['**/*.js', '**/*.cjs', '**/*.mjs'], languageOptions: { globals: globals.node } },
  { files: ['**/test/**'], languageOptions: { globals: { ...globals.jest, ...globals.node } } },
  {
    rules: {
      'import/export': 'off', // the compiler tells names that stand twice
      'import/no-named-as-default': 'off', // and what a default export is not
      'import/namespace': 'off', // types are the compiler's; this rule reads React Native's Flow
      'import/no-unresolved': 'off', // the compiler resolves
      'import/no-named-as-default-member': 'off', // fast-check documents its default export
      'max-lines': ['error', { max: 445 }],
    },
  },
  // A screen is a tree of what stands on it, and longer than a thought.
  {
    files: ['*/src/**/*.ts', 'scripts/**/*.mjs'],
    rules: {
      'max-lines-per-function': ['error', { max: 60, IIFEs: true }],
      'max-params': ['error', { max: 5 }],
    },
  },
  { files: ['app/src/**/*.tsx'], rules: { 'max-lines-per-function': ['error', { max: 105 }] } },
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: { '@typescript-eslint/no-explicit-any': 'error' },
  },
  // Inlined variables are the app's concern; Node reads its environment as it is.
  {
    files: ['e2e/**', 'threads/**', 'server/**', 'scripts/**'],
    rules: { 'expo/no-dynamic-env-var': 'off' },
  },
  // An empty pattern is how a test asks for no fixture.
  { files: ['e2e/**'], rules: { 'no-empty-pattern': 'off' } },
]);
