import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { checkLapsed, instrumentsInUse } from './instrumentsStore.ts'

export function limitsRoutes(serving: Serving): void {
  serving.serve(endpoints.instruments, async ({ work }) => {
    const instruments = await instrumentsInUse(work)
    return instruments.map(({ versionId: _, ...instrument }) => ({
      ...instrument,
      checkLapsed: checkLapsed(instrument.checkedOn, work.now),
    }))
  })
}
