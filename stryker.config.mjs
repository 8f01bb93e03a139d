/**
 * `npm run mutants`: whether tests notice when a rule is changed. Everything that judges is changed in one place at a time, one capability
 * after another; what no test notices is read, and is either tested or named in docs/mutants.md.
 */
const capability = process.env['PELRIN_MUTANTS'] ?? 'length'

/** @type {import('@stryker-mutator/api/core').PartialStrykerOptions} */
export default {
  testRunner: 'vitest',
  vitest: { configFile: 'vitest.mutants.ts' },
  plugins: ['@stryker-mutator/vitest-runner'],
  mutate: [`core/src/${capability}/**/*.ts`, '!**/*.test.ts', '!**/*.testing.ts', '!**/index.ts'],
  // Words of an explanation are tested as words, not as rules.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignoreStatic: true,
  coverageAnalysis: 'perTest',
  concurrency: 2,
  timeoutMS: 20_000,
  dryRunTimeoutMinutes: 15,
  reporters: ['clear-text', 'json'],
  jsonReporter: { fileName: `test-results/mutants-${capability}.json` },
  tempDirName: 'test-results/mutants',
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportMutants: false },
}
