import { setTimeout as sleep } from 'node:timers/promises'
import pg from 'pg'
import { say } from '../plain.ts'
import type { Cluster } from '../postgres/cluster.ts'

/** How often it is looked whether it runs, and whether it answers, ms. */
const LOOKED_EVERY_MS = 500
const ASKED_EVERY_MS = 5_000
const ANSWER_MS = 6_000
const SILENCES = 3
/** Between tries to start it again, the longest, ms: what keeps it down, such as a full disk, may pass. */
const LONGEST_MS = 10_000

/** SQLSTATE of one that starts, stops or recovers: it lives, and says so. */
const BUSY_WITH_ITSELF = '57P03'

/** Whether a database answers, or says why it cannot yet. */
async function answers(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: ANSWER_MS, query_timeout: ANSWER_MS })
  client.on('error', () => undefined)
  try {
    await client.connect()
    await client.query('SELECT 1')
    return true
  } catch (error) {
    return (error as { code?: string }).code === BUSY_WITH_ITSELF
  } finally {
    void client.end().catch(() => undefined)
  }
}

/** Sees to it that a cluster runs: started again whenever it ended, whatever ended it, and when it lives and does not answer. */
export class WatchedCluster {
  private readonly leaving = new AbortController()
  private readonly watching: Promise<void>

  constructor(private readonly cluster: Cluster) {
    this.watching = this.watch()
  }

  private stopping(): boolean {
    return this.leaving.signal.aborted
  }

  async stop(): Promise<void> {
    this.leaving.abort()
    // One that is asked whether it lives may take its time to say so: nobody waits for that who stops it.
    await Promise.race([this.watching, sleep(1_000)])
    await this.cluster.stop()
  }

  private async watch(): Promise<void> {
    let askedAt = Date.now()
    let silences = 0
    while (!this.stopping()) {
      await sleep(LOOKED_EVERY_MS)
      if (!this.cluster.isUp()) {
        await this.again('The database ended by itself; starting it again.')
        silences = 0
      } else if (Date.now() - askedAt > ASKED_EVERY_MS) {
        silences = (await answers(this.cluster.adminUrl)) ? 0 : silences + 1
        askedAt = Date.now()
        if (silences < SILENCES) continue
        await this.again('The database runs and does not answer; starting it anew.')
        silences = 0
      }
    }
  }

  private async again(why: string): Promise<void> {
    if (this.stopping()) return
    say(why)
    for (let wait = 200; !this.stopping(); wait = Math.min(LONGEST_MS, wait * 2)) {
      try {
        await this.cluster.restart()
        say('The database runs again.')
        return
      } catch (error) {
        say((error as Error).message)
        await sleep(wait)
      }
    }
  }
}
