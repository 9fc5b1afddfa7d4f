const swc = [
  '<rootDir>/tests/support/transform.mjs',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true },
      target: 'es2022',
      transform: { react: { runtime: 'automatic' } },
    },
    module: { type: 'es6' },
  },
];
const project = (displayName, testMatch, more = {}) => ({
  displayName,
  testMatch,
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '\\.tsx?$': swc },
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/apps/web/src/$1' },
  ...more,
});

/** Unit tests and damaged files need nothing; store and e2e tests need the servers that tools/test.mjs starts. */
export default {
  projects: [
    project('unit', [
      '<rootDir>/packages/{core,formats,scene,render,starters,sync}/tests/**/*.test.ts',
      '<rootDir>/apps/{cli,web}/tests/**/*.test.ts',
      '<rootDir>/apps/worker/tests/hands.test.ts',
    ]),
    project('fuzz', ['<rootDir>/apps/worker/tests/fuzz.test.ts']),
    project('store', ['<rootDir>/packages/store/tests/**/*.test.ts', '<rootDir>/tools/tests/**/*.test.mjs']),
    project('e2e', ['<rootDir>/tests/e2e/**/*.test.ts'], {
      setupFiles: ['<rootDir>/tests/support/lane.ts'],
      setupFilesAfterEnv: ['<rootDir>/tests/support/again.ts'],
    }),
  ],
  testTimeout: 120_000,
};
