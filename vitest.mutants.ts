import { defineConfig } from 'vitest/config'

/** Tests of one capability of the core, as `npm run mutants` runs them: in the modules it changed. */
export default defineConfig({
  test: {
    environment: 'node',
    // Its own tests, and those that recompute every explanation.
    include: [`core/src/${process.env['PELRIN_MUTANTS'] ?? 'length'}/**/*.test.ts`, 'core/src/explanation*.test.ts'],
    // Thousands of lives, for a rule's average and not for a rule.
    exclude: ['**/simulate*.test.ts', '**/*.reference.test.ts'],
    testTimeout: 45_000,
  },
})
