import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { addChain, changeChain, swapChain } from './service.ts'
import { bikeChains } from './store.ts'
import { chainPage, jointPage } from './timeline.ts'
import { undoSwap } from './undo.ts'

export function chainsRoutes(serving: Serving): void {
  serving.serve(endpoints.bikeChains, ({ work, params }) => bikeChains(work, params.id))
  serving.serve(endpoints.chain, ({ work, params }) => chainPage(work, params.id))
  serving.serve(endpoints.joint, ({ work, params }) => jointPage(work, params.id))
  serving.serve(endpoints.addChain, ({ work, params, body }) => addChain(work, params.id, body))
  serving.serve(endpoints.swapChain, ({ work, params, body }) => swapChain(work, params.id, body))
  serving.serve(endpoints.undoSwap, ({ work, params, body }) => undoSwap(work, params.id, body.reason))
  serving.serve(endpoints.changeChain, ({ work, params, version, body }) => changeChain(work, params.id, version, body))
}
