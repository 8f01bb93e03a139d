import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { addPitchesBack, mendChain } from './service.ts'
import { bikeMends } from './store.ts'

export function mendsRoutes(serving: Serving): void {
  serving.serve(endpoints.bikeMends, ({ work, params }) => bikeMends(work, params.id))
  serving.serve(endpoints.mendChain, ({ work, params, body }) => mendChain(work, params.id, body))
  serving.serve(endpoints.addPitchesBack, ({ work, params, body }) => addPitchesBack(work, params, body))
}
