import js from '@eslint/js';
import globals from 'globals';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Rooms of the core: each stage stands on the ground floor and knows no other stage; what goes across trees and the acts stand above them, the plan above those, and a session of work above all. */
const GROUND = ['units', 'space', 'species', 'wood', 'rod', 'tree'];
const STAGES = ['reading', 'front', 'removal', 'pose', 'wire', 'guy', 'growth', 'generate'];
const ABOVE = { season: ['acts', 'plan', 'work'], acts: ['season', 'plan', 'work'], rack: ['season', 'acts', 'plan', 'work'], plan: ['work'], work: [] };

const noImport = (group, message) => ({ group, message });
const upward = [...STAGES, ...Object.keys(ABOVE)];
const into = (rooms) => rooms.flatMap((r) => [`../${r}/*`, `../../${r}/*`]);

const roomRules = [
  {
    files: GROUND.map((r) => `packages/core/src/${r}/**/*.ts`),
    patterns: [noImport(into(upward), 'The ground floor knows no stage.')],
  },
  ...STAGES.map((room) => ({
    files: [`packages/core/src/${room}/**/*.ts`],
    patterns: [noImport(into(upward.filter((r) => r !== room)), 'Stages meet only through tree/ and wood/; the plan brings them together.')],
  })),
  ...Object.entries(ABOVE).map(([room, over]) => ({
    files: [`packages/core/src/${room}/**/*.ts`],
    patterns: over.length ? [noImport(into(over), 'Season and acts know neither each other nor the plan.')] : [],
  })),
].map(({ files, patterns }) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...patterns,
          { regex: '^\\.\\./[a-z]+/(?!index\\.js$)', message: "A room's public face is its index." },
          { regex: '^(?!@sinclair/typebox$)[^.]', message: 'The core imports nothing but itself and the library that its fields are described with.' },
        ],
      },
    ],
  },
}));

const houseRule = (files, forbidden) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: forbidden.map((name) =>
          noImport([name, `${name}/*`], 'Dependencies point one way: web, server, cli → contract, files → core; data stands alone.'),
        ),
      },
    ],
  },
});

export default tseslint.config(
  { ignores: ['**/dist/', '**/node_modules/', '.data/', '.mutate/', '**/*.tmp.mjs'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  { languageOptions: { globals: globals.node } },
  {
    files: ['packages/*/src/**', 'apps/*/src/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.object.name="Math"][callee.property.name=/^(max|min)$/] > SpreadElement',
          message: 'A long list does not fit into a call: greatestOf and leastOf take any.',
        },
      ],
    },
  },
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  { files: ['scripts/**', 'bench/**', 'demo/**'], languageOptions: { globals: globals.browser }, rules: { 'no-console': 'off' } },
  // Nest's modules and DTO bases are classes with nothing in them but decorators.
  { files: ['apps/server/**', 'packages/contract/**'], rules: { '@typescript-eslint/no-extraneous-class': 'off' } },
  {
    files: ['apps/web/src/**'],
    languageOptions: { globals: globals.browser },
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
  // The scene's objects are three's: they are made to be changed in place, between frames.
  { files: ['apps/web/src/turntable/**'], rules: { 'react-hooks/immutability': 'off' } },
  { files: ['e2e/**'], languageOptions: { globals: { ...globals.browser, ...globals.jest } } },
  {
    files: ['**/*.test.ts', 'apps/server/test/**', 'e2e/**'],
    languageOptions: { globals: globals.jest },
    rules: { '@typescript-eslint/no-explicit-any': 'off' },
  },
  ...roomRules,
  houseRule(['packages/data/src/**'], ['@ustle/core', '@ustle/files', '@ustle/contract', '@ustle/server', '@ustle/web']),
  houseRule(['packages/files/src/**'], ['@ustle/contract', '@ustle/server', '@ustle/web']),
  houseRule(['packages/contract/src/*.ts'], ['@ustle/server', '@ustle/web', '@nestjs', 'react', 'class-validator']),
  houseRule(['packages/contract/src/bodies/**'], ['@ustle/server', '@ustle/web', '@nestjs', 'react']),
  houseRule(['apps/cli/src/**'], ['@ustle/server', '@ustle/web', '@nestjs', 'react']),
  houseRule(['apps/server/src/**'], ['@ustle/web', 'react']),
  houseRule(['apps/web/src/**'], ['@ustle/server', '@ustle/contract/bodies', 'class-validator', '@nestjs', 'typeorm']),
);
