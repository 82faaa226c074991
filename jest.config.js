const transform = {
  '^.+\\.ts$': [
    '<rootDir>/scripts/lib/jestTransform.mjs',
    { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'es6' }, sourceMaps: 'inline' },
  ],
};
const shared = { transform, extensionsToTreatAsEsm: ['.ts'], testEnvironment: 'node' };

export default {
  // Not a project's option: said in one, it is not heard.
  testTimeout: 60_000,
  testSequencer: '<rootDir>/scripts/lib/longestFirst.mjs',
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: [
        '<rootDir>/packages/{core,contract,simulators,cli,web,server}/src/**/*.test.ts',
        '<rootDir>/scripts/**/*.test.ts',
        '<rootDir>/bench/**/*.test.ts',
      ],
    },
    {
      ...shared,
      displayName: 'server',
      testMatch: ['<rootDir>/packages/server/test/**/*.test.ts'],
      globalSetup: '<rootDir>/packages/server/test/support/globalSetup.mjs',
      globalTeardown: '<rootDir>/packages/server/test/support/globalTeardown.mjs',
    },
    { ...shared, displayName: 'deploy', testMatch: ['<rootDir>/deploy/**/*.test.ts'] },
  ],
};
