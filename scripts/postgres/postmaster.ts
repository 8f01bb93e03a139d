import { readdirSync, readFileSync, readlinkSync, realpathSync, rmSync } from 'node:fs'
import { basename, join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { PlainError } from '../plain.ts'
import { run } from './account.ts'

/**
 * How long each way of stopping may take before the next, harder one is tried, seconds. What was written is kept whichever way it is stopped; whoever
 * stops Pelrin waits no longer than ten seconds for all of it.
 */
const STOPPING_SECONDS = 2

const alive = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}

/** Every process of PostgreSQL that works in a cluster's folder. */
function processesOf(cluster: string): number[] {
  let place: string
  try {
    place = realpathSync(cluster)
  } catch {
    return []
  }
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return (
          readlinkSync(`/proc/${pid}/cwd`) === place &&
          basename(readlinkSync(`/proc/${pid}/exe`).replace(/ \(deleted\)$/, '')) === 'postgres'
        )
      } catch {
        // It is gone, or somebody else's.
        return false
      }
    })
    .map(Number)
}

/** The process that runs a cluster, by what it wrote down itself; null where none does. */
export function postmasterOf(cluster: string): number | null {
  try {
    const pid = Number(readFileSync(join(cluster, 'postmaster.pid'), 'utf8').split('\n')[0])
    return Number.isInteger(pid) && pid > 0 && alive(pid) && !isZombie(pid) ? pid : null
  } catch {
    return null
  }
}

function isZombie(pid: number): boolean {
  try {
    return /^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return true
  }
}

/** Ends whatever runs in a cluster's folder by force. */
export function killPostmaster(cluster: string): Promise<void> {
  for (const pid of processesOf(cluster)) {
    try {
      process.kill(pid, 'SIGKILL')
    } catch {
      // It ended by itself meanwhile.
    }
  }
  return Promise.resolve()
}

/**
 * Ends whatever runs in a cluster's folder: as it wants to be ended, then at once, then by force. In the middle of a recovery the first hangs;
 * after its head was killed, parts of it may be left that keep the next from starting.
 *
 * @throws PlainError when something cannot be ended
 */
export async function stopPostmaster(control: string, cluster: string): Promise<void> {
  for (const mode of ['fast', 'immediate']) {
    if (postmasterOf(cluster) === null) break
    await run(control, ['-D', cluster, '-m', mode, '-w', '-t', `${STOPPING_SECONDS}`, 'stop'])
  }
  for (let tries = 0; tries < 50; tries++) {
    const left = processesOf(cluster)
    if (left.length === 0) {
      // Its own note that it runs, which would keep the next from starting.
      rmSync(join(cluster, 'postmaster.pid'), { force: true })
      return
    }
    for (const pid of left) {
      try {
        process.kill(pid, 'SIGKILL')
      } catch {
        // It ended by itself meanwhile.
      }
    }
    await sleep(100)
  }
  throw new PlainError(`The database in ${cluster} could not be stopped.`)
}
