// What a fresh clone runs first. Plain JavaScript without packages, since none is installed yet: it installs what
// is missing and hands over to start.ts.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')

function fail(sentence) {
  process.stderr.write(`${sentence}\n`)
  process.exit(1)
}

const [major = 0, minor = 0] = process.versions.node.split('.').map(Number)
if (major < 20 || (major === 20 && minor < 19))
  fail(`Pelrin needs Node 20.19 or newer; this is ${process.versions.node}.`)

/** Whether what is installed is what the lock file says, by npm's own record of its last installation. */
function installed() {
  const record = join(root, 'node_modules/.package-lock.json')
  if (!existsSync(record)) return false
  const packagesOf = (file) => JSON.parse(readFileSync(file, 'utf8')).packages
  const have = packagesOf(record)
  return Object.entries(packagesOf(join(root, 'package-lock.json'))).every(
    ([path, { version, link, optional, peer }]) =>
      !path.includes('node_modules/') || link || optional || peer || have[path]?.version === version,
  )
}

if (!process.argv.includes('--help') && !installed()) {
  process.stdout.write('Installing packages …\n')
  const npm = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  if (npm.status !== 0) fail('The packages could not be installed. Is the package registry reachable?')
}

// For --help nothing needs to be there; the text is a file of its own.
if (process.argv.includes('--help')) {
  process.stdout.write(readFileSync(join(root, 'scripts/start-help.txt'), 'utf8'))
  process.exit(0)
}

const child = spawn(
  process.execPath,
  ['--import', 'tsx', join(root, 'scripts/start.ts'), ...process.argv.slice(2)],
  { cwd: root, stdio: ['inherit', 'inherit', 'inherit', 'ipc'] },
)
// Ctrl-C reaches the child by itself (same terminal); a signal sent to us alone is passed on.
process.on('SIGINT', () => undefined)
process.on('SIGTERM', () => child.kill('SIGTERM'))
process.on('SIGHUP', () => child.kill('SIGTERM'))
child.on('exit', (code, signal) => process.exit(code ?? (signal === null ? 0 : 1)))
