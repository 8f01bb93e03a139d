import * as v from 'valibot'
import { Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { RIGHTS, type Right } from './roles.ts'

/** What another program may be allowed: never what is the owner's. Reading is allowed to each. */
export const TOKEN_RIGHTS = (Object.keys(RIGHTS) as Right[]).filter(
  (right) => right !== 'owner' && right !== 'signed-in',
)
const TokenRight = v.picklist(TOKEN_RIGHTS, 'field-invalid')

/** By which another program asks, in the name of who made it. */
export const ApiToken = v.object({
  id: Id,
  name: v.string(),
  /** What it may beside reading. */
  rights: v.array(TokenRight),
  madeAt: Moment,
  person: v.string(),
  lastUsedAt: v.nullable(Moment),
})
export type ApiToken = v.InferOutput<typeof ApiToken>

const byId = v.object({ id: Id })

export const tokensEndpoints = {
  apiTokens: endpoint({
    name: 'apiTokens',
    method: 'GET',
    path: '/tokens',
    summary: 'By which other programs ask.',
    access: 'owner',
    result: v.array(ApiToken),
  }),
  makeToken: endpoint({
    name: 'makeToken',
    method: 'POST',
    path: '/tokens',
    summary: 'Make a token for another program: it reads, and does what is named. Told once.',
    access: 'owner',
    body: v.object({ id: Id, name: line(60), rights: v.array(TokenRight) }),
    result: v.object({ token: v.string(), tokens: v.array(ApiToken) }),
  }),
  revokeToken: endpoint({
    name: 'revokeToken',
    method: 'POST',
    path: '/tokens/:id/revocation',
    summary: 'A program asks by it no more.',
    access: 'owner',
    params: byId,
    result: v.array(ApiToken),
  }),
}
