import { endpoints } from '@pelrin/contract'
import type { BikeComponents } from '@pelrin/contract'
import { lockPresentBike } from '../bikes/lockPresentBike.ts'
import type { Work } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import { bikeRun } from '../distance/bikeRun.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { fitComponent, requireToday, unfit } from './service.ts'
import { componentsOf } from './store.ts'

/** What else wears on a bike, with what each has run. @throws ProblemError 404 */
const shown = async (work: Work, bikeId: string): Promise<BikeComponents> =>
  componentsOf(work, bikeId, await bikeRun(work, bikeId))

export function componentsRoutes(serving: Serving): void {
  serving.serve(endpoints.bikeComponents, ({ work, params }) => shown(work, params.id))
  serving.serve(endpoints.fitComponent, async ({ work, params, body: { occurredAt, ...body } }) => {
    await lockPresentBike(work, params.id)
    await lockBikeState(work, params.id)
    const at = new Date(Math.min(work.now.getTime(), Date.parse(occurredAt)))
    await fitComponent(work, { ...body, bikeId: params.id, at, becauseId: null })
    await refreshBikeState(work, params.id)
    return shown(work, params.id)
  })
  serving.serve(endpoints.undoComponent, async ({ work, params, body }) => {
    await requireToday(work, params.id)
    const bikeId = await unfit(work, params.id, body.reason)
    await lockBikeState(work, bikeId)
    await refreshBikeState(work, bikeId)
    return shown(work, bikeId)
  })
}
