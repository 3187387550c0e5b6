import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';

const FEATURES = [
  'jobs',
  'plan',
  'bench',
  'rack',
  'light',
  'log',
  'tables',
  'gauge',
  'schedule',
  'quote',
  'photo',
  'start',
  'settings',
  'pair',
  'trial',
  'manual',
];

// Features never import features; charts take data and callbacks and know nothing of the API.
const layers = [
  {
    files: ['src/charts/**', 'src/gl/**', 'src/ui/**', 'src/units/**'],
    patterns: ['**/features/**', '**/api/**', '**/app/**'],
  },
  { files: ['src/api/**', 'src/own/**'], patterns: ['**/features/**', '**/app/**'] },
  ...FEATURES.map((feature) => ({
    files: [`src/features/${feature}/**`],
    patterns: FEATURES.filter((other) => other !== feature).flatMap((other) => [
      `**/features/${other}/**`,
      `../${other}/**`,
    ]),
  })),
].map(({ files, patterns }) => ({ files, rules: { 'no-restricted-imports': ['error', { patterns }] } }));

export default ts.config(
  { ignores: ['dist/', '.svelte-check/', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  { files: ['**/*.svelte', '**/*.svelte.ts'], languageOptions: { parserOptions: { parser: ts.parser } } },
  { rules: { 'svelte/no-navigation-without-resolve': 'off' } },
  ...layers,
);
