import { defineConfig } from 'vitest/config'

/** Tests of the core alone, as `npm run mutants` runs them: each file in the modules it changed. */
export default defineConfig({
  test: { environment: 'node', include: ['core/src/**/*.test.ts'], testTimeout: 45_000 },
})
