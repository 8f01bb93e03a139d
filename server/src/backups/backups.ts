import type { Backup } from './backup.ts'

/**
 * Whoever makes backups. The server itself does not: they want every shop's rows, so the start command, which alone may see them, makes them
 * and tells what there is.
 */
export interface Backups {
  list(): Promise<Backup[]>
  make(): Promise<Backup[]>
}

/** What the server asks of the process that started it, and what that answers. */
export type BackupAsked = { readonly backups: 'list' | 'make'; readonly id: number }
export type BackupTold = { readonly backups: Backup[] | null; readonly failed: string | null; readonly id: number }

/** Longer than any backup of a workshop takes, ms. */
const PATIENCE_MS = 30 * 60_000

/** Backups made by the process that started this one, asked over the line between them. */
export class BackupsOfParent implements Backups {
  private asked = 0
  private readonly waiting = new Map<number, (told: BackupTold) => void>()

  constructor(private readonly parent: NodeJS.Process = process) {
    parent.on('message', (told: BackupTold) => {
      this.waiting.get(told.id)?.(told)
      this.waiting.delete(told.id)
    })
  }

  list(): Promise<Backup[]> {
    return this.ask('list')
  }

  make(): Promise<Backup[]> {
    return this.ask('make')
  }

  private ask(what: 'list' | 'make'): Promise<Backup[]> {
    return new Promise((done, reject) => {
      const id = ++this.asked
      const timer = setTimeout(() => {
        this.waiting.delete(id)
        reject(new Error('the backup took too long'))
      }, PATIENCE_MS)
      this.waiting.set(id, ({ backups, failed }) => {
        clearTimeout(timer)
        if (backups) done(backups)
        else reject(new Error(failed ?? 'the backup failed'))
      })
      this.parent.send?.({ backups: what, id } satisfies BackupAsked)
    })
  }
}
