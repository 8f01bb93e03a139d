import { register } from 'tsx/esm/api'
import { defineConfig } from 'vitest/config'

// What is set up before the server's tests is loaded here.
register()

/** Tests of one workspace, with what holds for all of them. */
const project = (name: string, include: string, more: object = {}) => ({
  extends: true as const,
  test: { name, include: [include], ...more },
})

export default defineConfig({
  test: {
    environment: 'node',
    // Modules are loaded as Node itself loads them for whoever is served, and once for all files: no test changes a module.
    isolate: false,
    experimental: { viteModuleRunner: false, nodeLoader: false },
    execArgv: ['--import', 'tsx'],
    projects: [
      project('core', 'core/src/**/*.test.ts', { testTimeout: 45_000 }),
      project('contract', 'contract/src/**/*.test.ts'),
      project('drawn', 'drawn/src/**/*.test.ts'),
      project('standins', 'standins/**/*.test.ts'),
      // Served by vite.
      project('web', 'web/src/**/*.test.{ts,tsx}', {
        experimental: { viteModuleRunner: true },
        setupFiles: ['web/src/testing/setup.ts'],
        testTimeout: 45_000,
      }),
      project('scripts', 'scripts/**/*.test.ts', { testTimeout: 45_000, hookTimeout: 60_000 }),
      project('server', 'server/src/**/*.test.ts', {
        globalSetup: ['server/src/testing/cluster.ts'],
        // A machine that does other work beside it is slow, not wrong.
        testTimeout: 120_000,
        hookTimeout: 60_000,
      }),
    ],
  },
})
