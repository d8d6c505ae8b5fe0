export default {
  testEnvironment: 'node',
  // Clearing what a file has put on the page's objects ends in a stack overflow where Dexie's promises go on after a test.
  testEnvironmentOptions: { globalsCleanup: 'off' },
  // All of a small machine: nothing else runs beside the unit tests.
  maxWorkers: '100%',
  // A busy machine makes nothing wrong: only what hangs is stopped.
  testTimeout: 120_000,
  roots: ['<rootDir>/src', '<rootDir>/cli', '<rootDir>/demo', '<rootDir>/docs', '<rootDir>/serving'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  setupFiles: ['<rootDir>/jest.setup.ts'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^@demo/(.*)$': '<rootDir>/demo/$1',
  },
  // Packages that ship as ES modules only.
  transformIgnorePatterns: ['/node_modules/(?!(flatqueue)/)'],
  transform: {
    '\\.(tsx?|js)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
};
