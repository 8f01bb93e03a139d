import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { changeRules, houseRules, previewRules } from './service.ts'

export function limitsRoutes(serving: Serving): void {
  serving.serve(endpoints.houseRules, ({ work }) => houseRules(work))
  serving.serve(endpoints.previewRules, ({ work, body }) => previewRules(work, body.change), { long: true })
  serving.serve(endpoints.changeRules, ({ work, body }) => changeRules(work, body.change, body.reason), { long: true })
}
