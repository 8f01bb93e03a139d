import { basename, join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { makeBackup, noteRestored, restoreBackup } from '../server/src/backups/backup.ts'
import { PlainError, say } from './plain.ts'
import { runningCluster, startCluster } from './postgres/cluster.ts'
import { postgresPrograms } from './postgres/programs.ts'

/**
 * `npm run backup [-- --data <folder>] [--to <folder>]` makes a backup of everything, while Pelrin runs or not.
 * `npm run restore -- <backup> --into <database url>` restores one into an empty database, as its superuser.
 */
async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    options: { data: { type: 'string' }, to: { type: 'string' }, into: { type: 'string' } },
    allowPositionals: true,
  })
  const [what, file] = positionals
  const programs = postgresPrograms()
  if (what === 'restore') {
    if (file === undefined || values.into === undefined)
      throw new PlainError('npm run restore -- <backup> --into postgres://postgres:…@127.0.0.1:5432/an-empty-database')
    await restoreBackup(programs, resolve(file), values.into)
    await noteRestored(values.into, basename(file))
    say(`Restored ${file}.`)
    return
  }
  const data = values.data === undefined ? resolve(import.meta.dirname, '../.pelrin') : resolve(values.data)
  const outside = process.env['BACKUP_URL'] ?? process.env['DATABASE_URL']
  const running = outside === undefined ? runningCluster(data) : { adminUrl: outside }
  // With nobody using it, it is started for as long as this takes.
  const started = running ? null : await startCluster(data)
  try {
    const url = running?.adminUrl ?? started!.adminUrl
    const folder = values.to === undefined ? join(data, 'backups') : resolve(values.to)
    const { file: made, bytes } = await makeBackup({ programs, url, folder }, new Date())
    say(`${join(folder, made)}, ${Math.round(bytes / 1024)} kB`)
  } finally {
    await started?.stop()
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
