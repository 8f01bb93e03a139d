import Router from '@koa/router'
import type { Database } from '../db/connection.ts'
import type { RequestState } from '../http/request.ts'
import { diskIsFull } from '../transfers/diskFull.ts'

/** Writes a row over with itself: what a full disk refuses. */
const TRY = `UPDATE sessions SET last_seen_at = last_seen_at
  WHERE token_hash = (SELECT token_hash FROM sessions ORDER BY last_seen_at DESC LIMIT 1)`

/**
 * `/health/live`: the process answers. `/health/ready`: it can serve, which takes the database, and room on its disk. Whether there is room is tried
 * by writing, and only from when it was missing until it is there again.
 */
export class Health {
  private full = false

  constructor(private readonly database: Database) {}

  /** Something failed; for want of room? */
  noticed(error: unknown): void {
    if (diskIsFull(error)) this.full = true
  }

  routes(): Router<RequestState> {
    const router = new Router<RequestState>({ prefix: '/health' })
    router.get('/live', (ctx) => {
      ctx.body = { status: 'live' }
    })
    router.get('/ready', async (ctx) => {
      try {
        await this.database.sequelize.query(this.full ? TRY : 'SELECT 1')
        this.full = false
        ctx.body = { status: 'ready' }
      } catch (error) {
        this.noticed(error)
        ctx.status = 503
        ctx.body = { status: this.full ? 'no room on the disk' : 'waiting for the database' }
      }
    })
    return router
  }
}
