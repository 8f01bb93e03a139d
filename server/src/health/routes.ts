import Router from '@koa/router'
import type { Database } from '../db/connection.ts'
import type { RequestState } from '../http/request.ts'

/** `/health/live`: the process answers. `/health/ready`: it can serve, which takes the database. */
export function healthRouter(database: Database): Router<RequestState> {
  const router = new Router<RequestState>({ prefix: '/health' })
  router.get('/live', (ctx) => {
    ctx.body = { status: 'live' }
  })
  router.get('/ready', async (ctx) => {
    try {
      await database.sequelize.query('SELECT 1')
      ctx.body = { status: 'ready' }
    } catch {
      ctx.status = 503
      ctx.body = { status: 'waiting for the database' }
    }
  })
  return router
}
