import type { Context } from 'koa'
import type { Author } from '../db/work.ts'
import { DEVICE_COOKIE, SESSION_COOKIE, type CurrentSession } from './currentSession.ts'

/** Where a request comes from. */
export interface Origin {
  readonly address: string
  /** The device's own token, which outlives its sessions; null for one that was never signed in. */
  readonly deviceToken: string | null
  /** The session it had so far. */
  readonly sessionToken: string | null
  readonly deviceName: string
  readonly requestId: string
}

export function originOf(ctx: Context & { state: { readonly requestId: string } }): Origin {
  return {
    address: ctx.ip,
    deviceToken: ctx.cookies.get(DEVICE_COOKIE) ?? null,
    sessionToken: ctx.cookies.get(SESSION_COOKIE) ?? null,
    deviceName: ctx.get('User-Agent').slice(0, 120) || 'unnamed device',
    requestId: ctx.state.requestId,
  }
}

/** Who writes, of what somebody signed in asks for. */
export const authorOf = ({ person, deviceId }: CurrentSession, { requestId }: Origin): Author => ({
  personId: person.id,
  deviceId,
  requestId,
})
