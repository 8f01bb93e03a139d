import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { dropParts, keepParts } from './kept.ts'

export function stockRoutes(serving: Serving): void {
  serving.serve(endpoints.keepParts, ({ work, params, body }) => keepParts(work, params.id, body))
  serving.serve(endpoints.dropParts, async ({ work, params, version }) => {
    await dropParts(work, params.id, version)
    return undefined
  })
}
