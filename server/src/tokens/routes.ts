import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { apiTokens, makeToken, revokeToken } from './service.ts'

export function tokensRoutes(serving: Serving): void {
  serving.serve(endpoints.apiTokens, ({ work }) => apiTokens(work))
  serving.serve(endpoints.makeToken, ({ work, body }) => makeToken(work, body))
  serving.serve(endpoints.revokeToken, ({ work, params }) => revokeToken(work, params.id))
}
