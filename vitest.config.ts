import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/src/**/*.test.ts'], environment: 'node', testTimeout: 45_000 } },
      { test: { name: 'contract', include: ['contract/src/**/*.test.ts'], environment: 'node' } },
      { test: { name: 'standins', include: ['standins/**/*.test.ts'], environment: 'node' } },
      { test: { name: 'web', include: ['web/src/**/*.test.{ts,tsx}'], environment: 'node' } },
      {
        test: {
          name: 'scripts',
          include: ['scripts/**/*.test.ts'],
          environment: 'node',
          testTimeout: 45_000,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts'],
          environment: 'node',
          globalSetup: ['server/src/testing/cluster.ts'],
          testTimeout: 45_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
})
