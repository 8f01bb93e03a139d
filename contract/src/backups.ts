import * as v from 'valibot'
import { Moment } from './common.ts'
import { endpoint } from './endpoint.ts'

/** Backups that were made whole, newest first; null where this server makes none. */
export const Backups = v.object({
  backups: v.nullable(v.array(v.object({ file: v.string(), at: Moment, bytes: v.number(), sha256: v.string() }))),
})
export type Backups = v.InferOutput<typeof Backups>

export const backupsEndpoints = {
  backups: endpoint({
    name: 'backups',
    method: 'GET',
    path: '/backups',
    summary: 'The backups there are.',
    access: 'owner',
    result: Backups,
  }),
  makeBackup: endpoint({
    name: 'makeBackup',
    method: 'POST',
    path: '/backups',
    summary: 'Make a backup of everything, now.',
    access: 'owner',
    result: Backups,
  }),
}
