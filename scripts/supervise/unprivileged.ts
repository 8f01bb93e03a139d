import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { PlainError } from '../plain.ts'
import { isRoot } from '../postgres/account.ts'

const root = join(import.meta.dirname, '../..')

/** Debian's account that owns nothing. */
const NOBODY = '65534'
/** Reads what it has no right to by itself: wanted only where Pelrin lies in a folder that others may not enter. */
export const READS = '+dac_read_search'
const LOW_PORTS = '+net_bind_service'

/** How `setpriv` is told to run a command as an account that owns nothing, with so many rights and no other. */
export function asNobody(rights: readonly string[]): string[] {
  const given = ['-all', ...rights].join(',')
  return [
    `--reuid=${NOBODY}`,
    `--regid=${NOBODY}`,
    '--clear-groups',
    '--no-new-privs',
    `--inh-caps=${given}`,
    // Rights that are kept over the change of account, also where a program asks beforehand whether it may read a file.
    ...(rights.length === 0 ? [] : ['--securebits=+no_setuid_fixup', `--ambient-caps=${given}`]),
    `--bounding-set=${given}`,
    '--',
  ]
}

let found: readonly string[] | undefined

/** What the account needs to read Pelrin where it lies. @throws PlainError where it cannot be given that */
function rightsToRead(): readonly string[] {
  found ??= [[], [READS]].find((rights) => {
    const reads = [...asNobody(rights), 'test', '-r', join(root, 'server/src/main.ts')]
    return spawnSync('setpriv', reads, { cwd: '/', stdio: 'ignore' }).status === 0
  })
  if (found) return found
  throw new PlainError(
    `Pelrin never serves as root, and the account it serves as cannot read ${root}. Put it where everybody may read it, such as /opt/pelrin, or start it as another account.`,
  )
}

/**
 * A command as it is run for the server: as ourselves, or, when we are root, as an account that owns nothing. Where it has to, it may read what
 * Pelrin is made of, and take a port below 1024 where one is asked for; of everything else root may do, nothing.
 *
 * @param port the server listens on; null for a program that takes any
 * @throws PlainError when that account cannot read Pelrin
 */
export function unprivileged(command: string, args: readonly string[], port: number | null): [string, string[]] {
  if (!isRoot()) return [command, [...args]]
  const rights = [...rightsToRead(), ...(port !== null && port < 1024 ? [LOW_PORTS] : [])]
  return ['setpriv', [...asNobody(rights), command, ...args]]
}
