import js from '@eslint/js';
import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Arrows point one way: web and server to core, the bench to core, core to zod. A subject is entered by its index. */
const forbid = (...groups) => ({ 'no-restricted-imports': ['error', { patterns: groups }] });
const INSIDES = { regex: '^(\\.\\./){1,2}[a-z][^/]*/.+', message: 'Import a subject by its index, not its insides.' };
const DOM_AND_NODE = {
  group: ['node:*', 'express', 'sequelize', 'pg', '@angular/*', 'rxjs', 'd3-*', '!d3-random', 'fs', 'path'],
  message: 'The core knows neither browser nor server.',
};
const SERVER = { group: ['@ruddy/server*', '**/server/**'], message: 'Only the server imports the server.' };
const WEB = { group: ['@ruddy/web*', '**/web/**', '@angular/*'], message: 'Only the pages import the pages.' };
const BENCH = { group: ['@ruddy/simbench*', '**/simbench/**', '**/probe/**'], message: 'Pages and core know no bench.' };
const CORE_INSIDES = { group: ['**/core/src/**', '@ruddy/core/*/*'], message: 'Import @ruddy/core/<subject>.' };

export default tseslint.config(
  { ignores: ['**/dist/**', '**/.angular/**', '**/node_modules/**', '.data*/**', 'docs/**', '**/zz-*'] },
  js.configs.recommended,
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        module: 'writable',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        structuredClone: 'readonly',
        AbortSignal: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        performance: 'readonly',
        Buffer: 'readonly',
      },
    },
  },
  {
    files: ['**/*.ts', '**/*.mts'],
    extends: [...tseslint.configs.strict, ...tseslint.configs.stylistic],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'inline-type-imports', prefer: 'type-imports', disallowTypeAnnotations: false },
      ],
      eqeqeq: 'error',
    },
  },
  { files: ['core/src/**/*.ts'], rules: forbid(INSIDES, DOM_AND_NODE, SERVER, WEB, BENCH) },
  { files: ['simbench/src/**/*.ts'], rules: forbid(SERVER, WEB, CORE_INSIDES) },
  { files: ['server/src/**/*.ts'], rules: forbid(WEB, CORE_INSIDES) },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      ...forbid(SERVER, CORE_INSIDES, BENCH, { group: ['node:*'], message: 'The pages run in a browser.' }),
      'no-restricted-properties': [
        'error',
        { property: 'innerHTML', message: 'Text goes in as text.' },
        { property: 'outerHTML', message: 'Text goes in as text.' },
        { property: 'html', message: 'D3: use text(), never html().' },
      ],
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'rb', style: 'kebab-case' }],
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
    },
  },
  { files: ['web/src/**/*.html'], extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility] },
);
