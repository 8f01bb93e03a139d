/**
 * `npm run mutants`: whether tests notice when a rule is changed. Everything that judges is changed in one place at a time; what no test
 * notices is read, and is either tested or named in docs/mutants.md.
 *
 * @type {import('@stryker-mutator/api/core').PartialStrykerOptions}
 */
export default {
  testRunner: 'vitest',
  vitest: { configFile: 'vitest.mutants.ts' },
  plugins: ['@stryker-mutator/vitest-runner'],
  mutate: [
    'core/src/{care,length,limits,standing}/*.ts',
    'core/src/readings/{worstSpot,probabilityOver}.ts',
    'core/src/parts/{chainRules,jointRules,matchParts,reuse,habit,reorder,jobLines}.ts',
    'core/src/forecast/{crossing,nextCheck,careKinds}.ts',
    '!core/src/**/*.test.ts',
    '!core/src/**/index.ts',
  ],
  // Words of an explanation are tested as words, not as rules.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignoreStatic: true,
  coverageAnalysis: 'perTest',
  concurrency: 2,
  timeoutMS: 20_000,
  reporters: ['clear-text', 'json', 'progress-append-only'],
  jsonReporter: { fileName: 'test-results/mutants.json' },
  tempDirName: 'test-results/mutants',
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
}
