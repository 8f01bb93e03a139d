import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { ledgerOf } from './ledger.ts'
import {
  correctEntry,
  correctRide,
  moveRide,
  recordOdometer,
  recordRide,
  recordStatement,
  removeEntry,
  removeRide,
} from './service.ts'

export function distanceRoutes(serving: Serving): void {
  serving.serve(endpoints.ledger, ({ work, params }) => ledgerOf(work, params.id))
  serving.serve(endpoints.recordRide, ({ work, params, body }) => recordRide(work, params.id, body))
  serving.serve(endpoints.correctRide, ({ work, params, body }) => correctRide(work, params.id, body))
  serving.serve(endpoints.removeRide, ({ work, params, body }) => removeRide(work, params.id, body))
  serving.serve(endpoints.moveRide, ({ work, params, body }) => moveRide(work, params.id, body))
  serving.serve(endpoints.recordOdometer, ({ work, params, body }) => recordOdometer(work, params.id, body))
  serving.serve(endpoints.recordStatement, ({ work, params, body }) => recordStatement(work, params.id, body))
  serving.serve(endpoints.correctEntry, ({ work, params, body }) => correctEntry(work, params.id, body))
  serving.serve(endpoints.removeEntry, ({ work, params, body }) => removeEntry(work, params.id, body))
}
