import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { lookOver } from './service.ts'

export function looksRoutes(serving: Serving): void {
  serving.serve(endpoints.lookOver, ({ work, body }) => lookOver(work, body))
}
