import * as v from 'valibot'
import { Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

/** A tablet or a computer that was signed in here. */
export const SignedDevice = v.object({
  id: Id,
  name: v.string(),
  lastSeenAt: v.nullable(Moment),
  /** Whoever is at it now; null where nobody is signed in. */
  person: v.nullable(v.string()),
  /** It is the one that asks. */
  isThis: v.boolean(),
})
export type SignedDevice = v.InferOutput<typeof SignedDevice>

/** One act that was written down. */
export const Act = v.object({
  id: Id,
  at: Moment,
  action: v.string(),
  subjectKind: v.string(),
  subjectId: Id,
  /** The bike it is about; null where it is about none. */
  bike: v.nullable(v.object({ id: Id, label: v.string(), customer: v.string() })),
  person: v.nullable(v.string()),
  device: v.nullable(v.string()),
  /** Came with an archive: it was not done here. */
  elsewhere: v.boolean(),
  detail: v.record(v.string(), v.unknown()),
})
export type Act = v.InferOutput<typeof Act>

export const AuditFilter = v.object({
  personId: v.exactOptional(Id),
  bikeId: v.exactOptional(Id),
  action: v.exactOptional(line(60)),
  from: v.exactOptional(v.pipe(v.string(), v.isoDate('day-malformed'))),
  to: v.exactOptional(v.pipe(v.string(), v.isoDate('day-malformed'))),
})
export type AuditFilter = v.InferOutput<typeof AuditFilter>

const byId = v.object({ id: Id })

export const accessEndpoints = {
  devices: endpoint({
    name: 'devices',
    method: 'GET',
    path: '/devices',
    summary: 'The devices that were signed in here, those seen last first.',
    access: 'owner',
    result: v.array(SignedDevice),
  }),
  renameDevice: endpoint({
    name: 'renameDevice',
    method: 'POST',
    path: '/devices/:id/name',
    summary: 'Call a device what the shop calls it.',
    access: 'owner',
    params: byId,
    body: v.object({ name: line(60) }),
    result: v.array(SignedDevice),
  }),
  revokeDevice: endpoint({
    name: 'revokeDevice',
    method: 'POST',
    path: '/devices/:id/revocation',
    summary: 'Sign a device out from here. Whoever signs in at it again needs their password.',
    access: 'owner',
    params: byId,
    result: v.array(SignedDevice),
  }),
  audit: endpoint({
    name: 'audit',
    method: 'GET',
    path: '/audit',
    summary: 'Who did what when to which bike, newest first.',
    access: 'owner',
    query: v.object({ ...AuditFilter.entries, cursor: v.exactOptional(line(200)) }),
    result: v.object({ acts: v.array(Act), next: v.nullable(v.string()), actions: v.array(v.string()) }),
  }),
}
