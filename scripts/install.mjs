// Shared by start.mjs and test.mjs, which run before any package is installed.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

export function fail(sentence) {
  process.stderr.write(`${sentence}\n`)
  process.exit(1)
}

/** Whether what is installed in a folder is what its lock file says, by npm's own record of its last installation. */
export function installedIn(folder) {
  const record = join(folder, 'node_modules/.package-lock.json')
  if (!existsSync(record)) return false
  const packagesOf = (file) => JSON.parse(readFileSync(file, 'utf8')).packages
  const have = packagesOf(record)
  return Object.entries(packagesOf(join(folder, 'package-lock.json'))).every(
    ([path, { version, link, optional, peer }]) =>
      !path.includes('node_modules/') || link || optional || peer || have[path]?.version === version,
  )
}

/** Checks Node's version and installs the packages when they are missing or not those of the lock file. */
export function ensureInstalled() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Pelrin needs Node 20.19 or newer; this is ${process.versions.node}.`)
  if (installedIn(root)) return
  process.stdout.write('Installing packages …\n')
  // No package needs a script of its own here: what they ship is used as it is.
  const npm = spawnSync('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  if (npm.status !== 0) fail('The packages could not be installed. Is the package registry reachable?')
}
