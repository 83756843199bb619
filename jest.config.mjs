/** ES modules as they are; TypeScript through SWC. Run with --experimental-vm-modules. */
const common = {
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
          target: 'es2022',
        },
        module: { type: 'es6' },
      },
    ],
  },
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/tests/support/seed.ts'],
  globalSetup: '<rootDir>/tests/support/beginRun.mjs',
  globalTeardown: '<rootDir>/tests/support/endRun.mjs',
};

export default {
  projects: [
    { ...common, displayName: 'unit', testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'] },
    { ...common, displayName: 'browser', testMatch: ['<rootDir>/tests/browser/**/*.test.ts'] },
  ],
  testTimeout: 300_000,
};
