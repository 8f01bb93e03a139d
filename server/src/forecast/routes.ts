import { endpoints } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { insight } from './insight.ts'
import { learn, undoLearning } from './learning.ts'
import { askForRun, cancelRun, handOver, newestRun } from './runs.ts'
import { v7 } from 'uuid'

export function forecastRoutes(serving: Serving, jobs: ShopJobs): void {
  serving.serve(endpoints.insight, ({ work }) => insight(work))
  const anew = async (work: Work, shopId: string) => {
    await handOver(jobs, shopId, await askForRun(work, v7()))
    return insight(work)
  }
  // It goes through every chain there ever was.
  serving.serve(
    endpoints.learn,
    async ({ work, body, session }) => {
      await learn(work, jobs, body.id)
      return anew(work, session.shop.id)
    },
    { long: true },
  )
  serving.serve(
    endpoints.undoLearning,
    async ({ work, body, session }) => {
      await undoLearning(work, body.version)
      return anew(work, session.shop.id)
    },
    { long: true },
  )
  serving.serve(endpoints.forecastShop, async ({ work, body, session }) =>
    handOver(jobs, session.shop.id, await askForRun(work, body.id)),
  )
  serving.serve(endpoints.forecastProgress, async ({ work }) => ({ job: await newestRun(work) }))
  serving.serve(endpoints.cancelForecast, async ({ work, body }) => ({ job: await cancelRun(work, body.id) }))
}
