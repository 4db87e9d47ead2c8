// How faults are planted; which files and which tests comes from scripts/mutants.mjs.
export default {
  packageManager: 'npm',
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  mutate: JSON.parse(process.env.MUTATE ?? '[]'),
  jest: { projectType: 'custom', configFile: 'scripts/jest.mutants.config.mjs', enableFindRelatedTests: false },
  // Every test of the folder: many put a work in its place once, outside of any single test.
  // Tests of derive take longer than the usual five minutes together.
  dryRunTimeoutMinutes: 40,
  coverageAnalysis: 'all',
  concurrency: Number(process.env.MUTANTS_AT_ONCE ?? 2),
  incremental: true,
  incrementalFile: `reports/incremental-${process.env.MUTANTS_KEPT ?? 'all'}.json`,
  // Texts and lists of fields are read by people and by the tests of forms; a changed word is no fault of a law.
  mutator: { excludedMutations: ['StringLiteral', 'ObjectLiteral'] },
  disableTypeChecks: false,
  reporters: ['json'],
  jsonReporter: { fileName: process.env.MUTANTS_REPORT },
  tempDirName: '.stryker-tmp',
  cleanTempDir: true,
  ignorePatterns: ['dist', 'docs/screenshots', 'e2e', 'abuse', 'reports', 'web/public'],
  timeoutMS: 20000,
};
