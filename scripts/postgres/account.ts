import { spawn, spawnSync } from 'node:child_process'

/** PostgreSQL will not run as root; started by root it runs as the account Debian's package makes for it. */
export const DATABASE_ACCOUNT = 'postgres'

export const isRoot = (): boolean => process.getuid?.() === 0

/** A command as the account the database runs under: ourselves, or `postgres` when we are root. */
function asDatabaseAccount(command: string, args: readonly string[]): [string, string[]] {
  if (!isRoot()) return [command, [...args]]
  return ['runuser', ['-u', DATABASE_ACCOUNT, '--', command, ...args]]
}

export interface Finished {
  readonly code: number
  readonly output: string
}

/**
 * Runs a command of the database under its account and waits for it. It runs in `/`, since the account may not
 * be able to enter the folder we are in.
 *
 * @param input what it reads
 */
export function run(command: string, args: readonly string[], input?: string): Promise<Finished> {
  const [program, all] = asDatabaseAccount(command, args)
  return new Promise((resolve, reject) => {
    const child = spawn(program, all, { cwd: '/', stdio: ['pipe', 'pipe', 'pipe'], detached: true })
    child.stdin.on('error', () => undefined)
    child.stdin.end(input ?? '')
    let output = ''
    child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()))
    child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()))
    child.on('error', reject)
    // `exit`, not `close`: the database inherits the pipes from pg_ctl and keeps them open.
    child.on('exit', (code) => {
      child.stdout.destroy()
      child.stderr.destroy()
      resolve({ code: code ?? 1, output })
    })
  })
}

/** Whether the database's account can enter a folder, which takes every folder above it too. */
export function accountCanEnter(folder: string): boolean {
  const [program, args] = asDatabaseAccount('test', ['-x', folder])
  return spawnSync(program, args, { cwd: '/', stdio: 'ignore' }).status === 0
}
