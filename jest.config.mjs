export default {
  rootDir: '.',
  testMatch: [
    '<rootDir>/{core,contract,demo}/src/**/*.test.ts',
    '<rootDir>/web/src/**/*.test.{ts,tsx}',
    '<rootDir>/server/test/**/*.test.ts',
    '<rootDir>/scripts/**/*.test.ts',
  ],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '^.+\\.tsx?$': '<rootDir>/scripts/jest-transform.mjs' },
  moduleNameMapper: { '^@rakuen/(core|contract|demo|server)/(.*)$': '<rootDir>/$1/src/$2.ts' },
  setupFiles: ['<rootDir>/scripts/jest-seed.mjs'],
  testTimeout: 240_000,
  maxWorkers: 2,
};
