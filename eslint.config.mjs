import js from '@eslint/js';
import astro from 'eslint-plugin-astro';
import importX, { createNodeResolver } from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const CORE = './src/core';
const SERVER_SIDE = [
  './src/server',
  './src/pages',
  './src/demo',
  './src/islands',
  './src/ui',
  './src/workers',
];

/** Dependencies point downward only: pages and islands, then server or workers, then core. */
const PLACES = ['cupboard', 'house', 'papers', 'pour', 'rack', 'range', 'scent', 'worktable', 'wrap'];

const LAYERS = [
  {
    target: CORE,
    from: ['./src/library', './src/rulebook', ...SERVER_SIDE],
    message: 'The core imports nothing outside src/core.',
  },
  {
    target: './src/library',
    from: SERVER_SIDE,
    message: 'The library is data; it knows only the core’s types.',
  },
  {
    target: './src/rulebook',
    from: SERVER_SIDE,
    message: 'The rulebook is data; it knows only the core’s types.',
  },
  {
    target: './src/server',
    from: ['./src/pages', './src/islands', './src/ui', './src/demo', './src/workers'],
    message: 'The server knows no screens; its own threads are in src/server/jobs.',
  },
  {
    target: './src/server/store',
    from: ['./src/server/services'],
    message: 'What several places share knows none of them.',
  },
  // The watch sees all places; no other knows one beside it.
  ...PLACES.map((place) => ({
    target: `./src/server/services/${place}`,
    from: ['./src/server/services'],
    except: [`./${place}`],
    message: 'What two places share goes down into the core or src/server/store.',
  })),
  {
    target: './src/workers',
    from: ['./src/pages', './src/islands', './src/ui', './src/server'],
    message: 'Workers call the core.',
  },
  {
    target: './src/ui',
    from: ['./src/pages', './src/islands', './src/server'],
    message: 'Shared controls know no screens.',
  },
  {
    target: './src/islands',
    from: ['./src/pages', './src/demo', './src/server'],
    message: 'Islands are used by pages; what they share with the server stands in src/core/records.',
  },
];

/** Services ask repositories; nobody else writes SQL. */
const NO_STATEMENTS = [
  'CallExpression[callee.name=/^(db|trx)$/]',
  "CallExpression[callee.object.name=/^(db|trx)$/][callee.property.name='raw']",
].map((selector) => ({ selector, message: 'Put the statement into src/server/repositories.' }));

const CUT = "CallExpression[callee.property.name='slice']";
/** The day of a moment is the house's: it is asked for, never cut off. */
const NO_CUT_MOMENTS = [
  `${CUT}[callee.object.property.name=/(^a|A)t$/]`,
  `${CUT}[callee.object.name=/(^a|A)t$/]`,
].map((selector) => ({ selector, message: 'Ask dayOf or clockOf of core/quantities/day.' }));

export default tseslint.config(
  { ignores: ['dist/', '.astro/', 'node_modules/', 'data/', 'test-results/'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  ...astro.configs.recommended,
  ...tseslint.configs.recommendedTypeCheckedOnly.map((config) => ({
    ...config,
    files: ['src/**/*.ts', 'src/**/*.tsx'],
  })),
  {
    files: ['src/**/*.ts', 'src/**/*.tsx'],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
  },
  {
    // Only screens have hooks; compiling every file to look for them took a fifth of the lint.
    files: ['src/islands/**/*.{ts,tsx}', 'src/ui/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.flat['recommended-latest'].rules,
  },
  {
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.tsx', '.mjs', '.json'] })],
    },
    rules: {
      'import-x/no-restricted-paths': ['error', { zones: LAYERS }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 400, skipBlankLines: true }],
      'no-console': ['error', { allow: ['error'] }],
    },
  },
  {
    files: ['src/**/*.{ts,tsx,astro}'],
    rules: { 'no-restricted-syntax': ['error', ...NO_CUT_MOMENTS] },
  },
  {
    files: ['src/core/**/*.ts', 'src/server/**/*.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['src/server/services/**/*.ts'],
    rules: { 'no-restricted-syntax': ['error', ...NO_CUT_MOMENTS, ...NO_STATEMENTS] },
  },
  {
    // Rows come from Knex without a type; they get theirs where they are taken.
    files: ['src/server/**/*.ts'],
    rules: { '@typescript-eslint/no-unsafe-assignment': 'off' },
  },
  {
    // The virtual list hands out functions the compiler does not memoize; it does not run here.
    files: ['src/ui/RecordTable.tsx'],
    rules: { 'react-hooks/incompatible-library': 'off' },
  },
  {
    files: ['src/islands/**/*.tsx', 'src/ui/**/*.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              // Days and zones are the one thing that is read by a package.
              regex: '^(?!@internationalized/date$)[^.]',
              message: 'The core imports nothing outside src/core.',
            },
          ],
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch'],
      'no-restricted-syntax': [
        'error',
        ...NO_CUT_MOMENTS,
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'No clock in the core: dates come in.',
        },
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'No clock in the core: dates come in.',
        },
      ],
    },
  },
  {
    files: ['scripts/**', 'test/**', '*.config.*'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        require: 'readonly',
        module: 'writable',
      },
    },
    rules: { 'no-console': 'off', '@typescript-eslint/no-require-imports': 'off' },
  },
);
