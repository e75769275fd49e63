import js from '@eslint/js';
import angular from 'angular-eslint';
import prettier from 'eslint-config-prettier';
import importX from 'eslint-plugin-import-x';
import { defineConfig, globalIgnores } from 'eslint/config';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** The walls of the house: who may not import from whom. Inside core, each folder stands on those before it. */
const CORE_ORDER = [
  'html',
  'css',
  'ledger',
  'profile',
  'markup',
  'toolbar',
  'paste',
  'render',
  'styles',
  'likeness',
  'site',
  'checks',
  'export',
];
const zones = [
  { target: 'packages/core', from: ['packages/api', 'packages/editor', 'packages/server', 'packages/web', 'packages/cli'] },
  { target: 'packages/api', from: ['packages/editor', 'packages/server', 'packages/web', 'packages/cli'] },
  { target: 'packages/editor', from: ['packages/api', 'packages/server', 'packages/web', 'packages/cli'] },
  { target: 'packages/server/src', from: ['packages/editor', 'packages/web', 'packages/cli'] },
  { target: 'packages/cli', from: ['packages/api', 'packages/editor', 'packages/server', 'packages/web'] },
  { target: 'packages/web', from: ['packages/server', 'packages/cli'] },
  ...CORE_ORDER.slice(0, -1).map((folder, place) => ({
    target: `packages/core/src/${folder}`,
    from: CORE_ORDER.slice(place + 1).map((later) => `packages/core/src/${later}`),
  })),
].map((zone) => ({ ...zone, message: 'Imports go one way; see docs/architecture.md.' }));

export default defineConfig(
  globalIgnores(['**/dist/', '**/.angular/', '**/coverage/', '**/node_modules/', '**/.data/']),
  {
    files: ['**/*.{js,mjs,cjs}'],
    extends: [js.configs.recommended],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: { 'no-unused-vars': ['error', { caughtErrors: 'none' }] },
  },
  {
    files: ['packages/**/*.ts', 'e2e/**/*.ts'],
    ignores: ['**/*.d.ts'],
    extends: [js.configs.recommended, tseslint.configs.recommendedTypeChecked],
    plugins: { 'import-x': importX },
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    settings: { 'import-x/resolver': { node: { extensions: ['.ts', '.mjs', '.js'] } } },
    rules: {
      'import-x/no-restricted-paths': ['error', { basePath: import.meta.dirname, zones }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    // Nothing of a browser, of Node or of a framework in the computation.
    files: ['packages/core/src/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^(node:|@angular|@ngrx|rxjs|hono|sequelize)', message: 'The core runs everywhere.' }] },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Buffer', 'localStorage', 'fetch'],
    },
  },
  {
    files: ['packages/web/src/**/*.ts'],
    extends: [angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'ty', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  {
    files: ['packages/web/src/**/*.html'],
    ignores: ['**/index.html'],
    extends: [angular.configs.templateRecommended, angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/no-any': 'error',
      '@angular-eslint/template/label-has-associated-control': ['error', { controlComponents: ['mat-select', 'mat-form-field'] }],
    },
  },
  {
    files: ['**/*.spec.ts', 'packages/*/test/**/*.ts', 'e2e/**/*.ts'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-floating-promises': 'off',
    },
  },
  prettier,
);
