import { isRoot } from '../postgres/account.ts'

/** Debian's account that owns nothing. */
const NOBODY = '65534'

/**
 * A command as it is run for the server: as ourselves, or, when we are root, as an account that owns nothing. It may read what Pelrin is made
 * of, wherever that lies, and take a port below 1024 where one is asked for; of everything else root may do, nothing.
 *
 * @param port the server listens on; null for a program that takes any
 */
export function unprivileged(command: string, args: readonly string[], port: number | null): [string, string[]] {
  if (!isRoot()) return [command, [...args]]
  const rights = ['+dac_read_search', ...(port !== null && port < 1024 ? ['+net_bind_service'] : [])].join(',')
  return [
    'setpriv',
    [
      `--reuid=${NOBODY}`,
      `--regid=${NOBODY}`,
      '--clear-groups',
      '--no-new-privs',
      `--inh-caps=-all,${rights}`,
      `--ambient-caps=-all,${rights}`,
      `--bounding-set=-all,${rights}`,
      '--',
      command,
      ...args,
    ],
  ]
}
