import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import {
  addInstrument,
  instrumentHistory,
  listInstruments,
  register,
  retireInstrument,
  reviseInstrument,
} from './service.ts'

export function instrumentsRoutes(serving: Serving): void {
  serving.serve(endpoints.instruments, ({ work }) => listInstruments(work))
  serving.serve(endpoints.register, ({ work }) => register(work))
  serving.serve(endpoints.instrument, ({ work, params }) => instrumentHistory(work, params.id))
  serving.serve(endpoints.addInstrument, ({ work, body }) => addInstrument(work, body))
  serving.serve(endpoints.reviseInstrument, ({ work, params, body }) => reviseInstrument(work, params.id, body))
  serving.serve(endpoints.retireInstrument, ({ work, params, body }) => retireInstrument(work, params.id, body))
}
