import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { PlainError, say } from '../plain.ts'
import { isRoot } from './account.ts'

const DEBIAN_FOLDER = '/usr/lib/postgresql'

/** The newest installed PostgreSQL's folder of programs; null with none that can make and run a cluster. */
function installedPrograms(): string | null {
  if (!existsSync(DEBIAN_FOLDER)) return null
  const found = readdirSync(DEBIAN_FOLDER)
    .filter((version) => /^\d+$/.test(version))
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => join(DEBIAN_FOLDER, version, 'bin'))
    .find((bin) => existsSync(join(bin, 'initdb')) && existsSync(join(bin, 'postgres')))
  return found ?? null
}

const has = (program: string): boolean =>
  spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0

/**
 * Installs a Debian package, as root or through sudo.
 *
 * @throws PlainError when there is no apt, no way to become root, or the installation fails
 */
export function installPackage(name: string, without: string): void {
  if (!has('apt-get'))
    throw new PlainError(`${name} is not installed, and there is no apt here to install it with. ${without}`)
  if (!isRoot() && !has('sudo'))
    throw new PlainError(
      `${name} is not installed, and installing it takes root or sudo. Run "apt-get install ${name}" as root, then start again. ${without}`,
    )
  say(`Installing ${name} (Debian's package) …`)
  const asRoot = isRoot() ? [] : process.stdin.isTTY ? ['sudo'] : ['sudo', '-n']
  const apt = (...args: string[]): { status: number | null; output: string } => {
    const [program = 'apt-get', ...rest] = [...asRoot, 'env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...args]
    const { status, stdout, stderr } = spawnSync(program, rest, {
      stdio: [process.stdin.isTTY ? 'inherit' : 'ignore', 'pipe', 'pipe'],
      encoding: 'utf8',
    })
    return { status, output: stdout + stderr }
  }
  const install = ['install', '-y', '-qq', '--no-install-recommends', name]
  if (apt(...install).status === 0) return
  apt('update', '-qq')
  const second = apt(...install)
  if (second.status !== 0) {
    const last = second.output.trim().split('\n').at(-1) ?? ''
    throw new PlainError(`Installing ${name} failed: ${last} ${without}`)
  }
}

/** Folder of PostgreSQL's programs, installing them when they are missing. */
export function postgresPrograms(): string {
  const installed = installedPrograms()
  if (installed !== null) return installed
  const otherwise = 'Or set DATABASE_URL to a PostgreSQL database you have.'
  installPackage('postgresql', otherwise)
  const programs = installedPrograms()
  if (programs === null) throw new PlainError(`PostgreSQL was installed but its programs were not found. ${otherwise}`)
  return programs
}
