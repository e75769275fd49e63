import { swc } from '../../jest.config.mjs';

/** Tests of the web application: Angular's compiler through jest-preset-angular, in jsdom. */
export default {
  displayName: 'web',
  rootDir: import.meta.dirname,
  preset: 'jest-preset-angular',
  setupFilesAfterEnv: ['<rootDir>/setup-jest.ts'],
  testMatch: ['<rootDir>/src/**/*.spec.ts', '<rootDir>/test/**/*.spec.ts'],
  testTimeout: 60_000,
  transformIgnorePatterns: ['node_modules/(?!(?:.*\\.mjs$|parse5/|entities/|culori/|lucide/|marked/|@noble/|echarts/|zrender/))'],
  transform: {
    // What holds no component needs no compiler of Angular's.
    '/packages/(?:api|core|editor)/.+\\.ts$': ['@swc/jest', swc],
    '^.+\\.(ts|js|mjs|html|svg)$': [
      'jest-preset-angular',
      { tsconfig: '<rootDir>/tsconfig.spec.json', stringifyContentPathRegex: '\\.(html|svg)$' },
    ],
  },
};
