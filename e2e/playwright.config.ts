import { chmodSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'

/** Made by the first process to read this; its workers inherit it. */
process.env['PELRIN_E2E_DATA'] ??= (() => {
  const folder = mkdtempSync(join(tmpdir(), 'pelrin-e2e-'))
  chmodSync(folder, 0o755)
  return folder
})()

const PORT = 7399
/**
 * Parts of a browser no page is shown in: pop-ups of its address bar are pages of their own, and cost each test as much as ours.
 * The rest is what the test runner leaves out, which this list takes the place of.
 */
const NOT_TESTED = [
  ...['WebUIOmniboxPopup', 'WebUIOmniboxAimPopup', 'AimEnabled', 'LensOverlay', 'MediaRouter', 'OptimizationHints'],
  ...['HttpsUpgrades', 'HttpsFirstBalancedModeAutoEnable', 'PaintHolding', 'ThirdPartyStoragePartitioning'],
  ...['AvoidUnnecessaryBeforeUnloadCheckSync', 'AvoidCorsURLLoaderRestartOnRedirect', 'DestroyProfileOnBrowserClose'],
  ...['NetworkTimeServiceQuerying', 'PreconnectToSearch'],
]
/** A server already running, for working on the tests themselves. */
const running = process.env['PELRIN_E2E_BASE']

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // Browser, server and database have two cores between them: a second worker would only wait.
  workers: 1,
  // What changes the whole shop comes when the others are done.
  projects: [
    { name: 'together', testIgnore: '*.alone.spec.ts' },
    { name: 'alone', testMatch: '*.alone.spec.ts', dependencies: ['together'] },
  ],
  timeout: 90_000,
  retries: 0,
  forbidOnly: true,
  expect: { timeout: 15_000 },
  use: {
    baseURL: running ?? `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    // A colour half way through its change is no colour of ours, and nobody learns anything by waiting for it.
    contextOptions: { reducedMotion: 'reduce' },
    // A trace of every test takes a fifth of the time of all; who works on one says so.
    trace: process.env['PELRIN_E2E_TRACE'] === undefined ? 'off' : 'on',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        `--disable-features=${NOT_TESTED.join()}`,
      ],
    },
  },
  ...(running === undefined
    ? {
        webServer: {
          // The real start command, on a data folder of its own.
          command: `node scripts/start.mjs --port ${PORT} --data ${process.env['PELRIN_E2E_DATA']}`,
          cwd: join(import.meta.dirname, '..'),
          url: `http://127.0.0.1:${PORT}/health/ready`,
          timeout: 180_000,
          reuseExistingServer: false,
          gracefulShutdown: { signal: 'SIGTERM', timeout: 20_000 },
        },
      }
    : {}),
})
