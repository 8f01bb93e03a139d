import { endpoints } from '@pelrin/contract'
import { audited, inShop } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import { ProblemError } from '../problems/problem.ts'
import type { Backups } from './backups.ts'

/** @param backups whoever makes them; undefined where somebody else does */
export function backupsRoutes(serving: Serving, backups: Backups | undefined): void {
  serving.serveWaiting(endpoints.backups, async () => ({ backups: backups ? await backups.list() : null }))
  serving.serveWaiting(endpoints.makeBackup, async ({ session, author }) => {
    if (!backups) throw new ProblemError(409, 'backup-none')
    const all = await backups.make()
    const { id: shopId } = session.shop
    await inShop(serving.database, shopId, author, (work) => audited(work, 'backed-up', 'shop', shopId))
    return { backups: all }
  })
}
