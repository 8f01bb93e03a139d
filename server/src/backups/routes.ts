import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { ProblemError } from '../http/problem.ts'
import { backupsIn, makeBackup, type BackupTools } from './backup.ts'

/** @param tools what backups are made with; undefined where somebody else makes them */
export function backupsRoutes(serving: Serving, tools: BackupTools | undefined): void {
  const all = async () => ({ backups: tools ? await backupsIn(tools.folder) : null })
  serving.serve(endpoints.backups, all)
  serving.serveWaiting(endpoints.makeBackup, async () => {
    if (!tools) throw new ProblemError(409, 'backup-none')
    await makeBackup(tools, new Date())
    return all()
  })
}
