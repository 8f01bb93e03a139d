import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { correctReading, takeReading } from './service.ts'

export function readingsRoutes(serving: Serving): void {
  serving.serve(endpoints.takeReading, ({ work, body }) => takeReading(work, body))
  serving.serve(endpoints.correctReading, ({ work, params, body }) => correctReading(work, params.id, body))
}
