const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', decorators: true },
      transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
      target: 'es2022',
    },
    module: { type: 'es6' },
  },
];

export default {
  rootDir: '.',
  testMatch: [
    '<rootDir>/{core,contract,demo}/src/**/*.test.ts',
    '<rootDir>/server/test/**/*.test.ts',
    '<rootDir>/scripts/**/*.test.ts',
  ],
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': swc },
  moduleNameMapper: { '^@rakuen/(core|contract|demo|server)/(.*)$': '<rootDir>/$1/src/$2.ts' },
  testTimeout: 60_000,
  maxWorkers: 2,
};
