import { spawn } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildWeb } from './buildWeb.ts'
import { PlainError, say } from './plain.ts'
import { installPackage, postgresPrograms } from './postgres/programs.ts'

/**
 * Runs everything there is to check: types, lint and format, dependency directions, unit and server tests, and
 * the real interface in Chromium. Names of parts (static, unit, interface) run only those.
 */
const root = join(import.meta.dirname, '..')
/** Everything a run leaves lying about: a killed server and a killed database tidy nothing up. */
const scratch = mkdtempSync(join(tmpdir(), 'pelrin-run-'))
// The server and the database of the tests run as others than who started them.
chmodSync(scratch, 0o1777)
const chosen = process.argv.slice(2)
const wants = (part: string): boolean => chosen.length === 0 || chosen.includes(part)

interface Count {
  passed: number
  failed: number
}
const total: Count = { passed: 0, failed: 0 }

/** A checker holds the types of everything at once: with room for them it tidies up a third less. */
const ROOMY = ['--max-semi-space-size=192', '--min-semi-space-size=64', '--initial-old-space-size=3000']

function run(
  command: string,
  args: readonly string[],
  { env = {}, node = [] }: { env?: NodeJS.ProcessEnv; node?: readonly string[] } = {},
): Promise<{ ok: boolean; output: string }> {
  return new Promise((done) => {
    const child = spawn(process.execPath, [...node, join(root, 'node_modules/.bin', command), ...args], {
      cwd: root,
      env: { ...process.env, TMPDIR: scratch, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let output = ''
    child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()))
    child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()))
    child.on('exit', (code) => done({ ok: code === 0, output }))
  })
}

/** One check that passes or fails as a whole. */
async function check(name: string, command: string, args: readonly string[]): Promise<void> {
  const started = Date.now()
  const { ok, output } = await run(command, args, { node: ROOMY })
  total[ok ? 'passed' : 'failed']++
  say(`${ok ? 'passed' : 'FAILED'}  ${name} (${Math.round((Date.now() - started) / 1000)} s)`)
  if (!ok) say(output)
}

/** A suite that reports how many of its tests passed. A suite that died counts as one more failure. */
async function suite(
  name: string,
  command: string,
  args: readonly string[],
  env: NodeJS.ProcessEnv,
  count: () => Count,
): Promise<void> {
  const started = Date.now()
  const { ok, output } = await run(command, args, { env })
  let counted: Count
  try {
    counted = count()
  } catch {
    counted = { passed: 0, failed: 0 }
  }
  if (!ok && counted.failed === 0) counted.failed++
  total.passed += counted.passed
  total.failed += counted.failed
  say(
    `${counted.failed === 0 ? 'passed' : 'FAILED'}  ${name}: ${counted.passed} passed, ${counted.failed} failed (${Math.round((Date.now() - started) / 1000)} s)`,
  )
  if (counted.failed > 0) say(output)
}

/** What reads the code without running it, the longest first. */
const toRead: (() => Promise<void>)[] = [
  () => check('types and lint', 'oxlint', ['--deny-warnings', '--report-unused-disable-directives']),
  () => check('format', 'prettier', ['--check', '--log-level', 'warn', '.']),
  () =>
    check('dependency directions', 'depcruise', [
      '--config',
      '.dependency-cruiser.mjs',
      'core/src',
      'contract/src',
      'drawn/src',
      'server/src',
      'standins',
      'web/src',
      'scripts',
      'e2e',
    ]),
  () => check('types of core, pure', 'tsc', ['-p', 'core/tsconfig.pure.json']),
]

/** Goes through what is still to be read; whoever else does so takes what comes after. */
async function staticChecks(): Promise<void> {
  for (let next = toRead.shift(); next; next = toRead.shift()) await next()
}

interface VitestReport {
  numPassedTests: number
  numFailedTests: number
}
interface PlaywrightReport {
  stats: { expected: number; unexpected: number; flaky: number }
}

const readReport = (file: string): unknown => JSON.parse(readFileSync(file, 'utf8'))

async function unitTests(): Promise<void> {
  const report = join(scratch, 'vitest.json')
  await suite(
    'core, contract, drawn, stand-ins, web, server and scripts',
    'vitest',
    ['run', '--reporter=dot', '--reporter=json', `--outputFile.json=${report}`],
    {},
    () => {
      const { numPassedTests, numFailedTests } = readReport(report) as VitestReport
      return { passed: numPassedTests, failed: numFailedTests }
    },
  )
}

async function interfaceTests(): Promise<void> {
  if (!existsSync('/usr/bin/chromium')) installPackage('chromium', 'The tests of the interface need it.')
  const report = join(scratch, 'playwright.json')
  await suite(
    'the interface in Chromium',
    'playwright',
    ['test', '--config', 'e2e/playwright.config.ts', '--reporter=list,json'],
    { PLAYWRIGHT_JSON_OUTPUT_NAME: report },
    () => {
      const { expected, unexpected, flaky } = (readReport(report) as PlaywrightReport).stats
      // A test that passes only when repeated has failed.
      return { passed: expected, failed: unexpected + flaky }
    },
  )
}

try {
  postgresPrograms()
  // Once, before two want it at the same time.
  if (wants('unit') || wants('interface')) await buildWeb(root)
  // Two at a time, one a core: whichever is through with its tests begins to read.
  await Promise.all(
    [wants('unit') && unitTests, wants('interface') && interfaceTests].map(async (tests) => {
      if (tests) await tests()
      if (wants('static')) await staticChecks()
    }),
  )
} catch (error) {
  total.failed++
  say(error instanceof PlainError ? error.message : ((error as Error).stack ?? String(error)))
}
rmSync(scratch, { recursive: true, force: true, maxRetries: 5 })
say(`${total.passed} passed, ${total.failed} failed`)
process.exit(total.failed === 0 ? 0 : 1)
