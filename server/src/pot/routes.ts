import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { addPot, addToPot, backOn, changeBath, changePotChain, movePotChains, switchPot } from './service.ts'
import { potBoard } from './store.ts'
import type { Thermometers } from './thermometers.ts'

export function potRoutes(serving: Serving, thermometers: Thermometers): void {
  serving.serve(endpoints.potBoard, ({ work }) => potBoard(work))
  serving.serve(endpoints.addToPot, ({ work, body }) => addToPot(work, body))
  serving.serve(endpoints.changePotChain, ({ work, params, version, body }) =>
    changePotChain(work, params.id, version, body),
  )
  serving.serve(endpoints.movePotChains, ({ work, body }) => movePotChains(work, body))
  serving.serve(endpoints.backOn, ({ work, params, body }) => backOn(work, params.id, body))
  serving.serve(endpoints.switchPot, ({ work, params, version, body }) => switchPot(work, params.id, version, body))
  serving.serve(endpoints.addPot, ({ work, body }) => addPot(work, body))
  serving.serve(endpoints.changeBath, ({ work, params, body }) => changeBath(work, params.id, body.id))
  serving.serve(endpoints.potTemperature, ({ work, params }) =>
    Promise.resolve(thermometers.of(work.shopId, params.id)),
  )
}
