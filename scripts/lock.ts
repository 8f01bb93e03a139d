import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { PlainError } from './plain.ts'

interface Holder {
  readonly pid: number
  readonly url: string | null
}

/** Whether the process that holds a lock is alive and is a Pelrin, not another program that got its number. */
function isAlive({ pid }: Holder): boolean {
  try {
    process.kill(pid, 0)
    return /scripts\/(\.built\/start\.js|start\.ts)/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))
  } catch {
    return false
  }
}

/** One Pelrin a data folder. */
export class Lock {
  private readonly file: string

  /** @throws PlainError when another Pelrin runs from the folder, or the folder cannot be written */
  constructor(folder: string) {
    this.file = join(folder, 'running.json')
    try {
      mkdirSync(folder, { recursive: true })
      this.write(null, 'wx')
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException
      if (code === 'EACCES' || code === 'EROFS' || code === 'ENOTDIR' || code === 'EPERM')
        throw new PlainError(`${folder} cannot be written. Choose another folder with --data.`)
      if (code !== 'EEXIST') throw error
      const holder = this.read()
      if (holder && isAlive(holder))
        throw new PlainError(
          `Pelrin is already running from this folder${holder.url === null ? '' : ` at ${holder.url}`} (process ${holder.pid}). Stop it first, or choose another folder with --data.`,
        )
      this.write(null, 'w')
    }
  }

  /** Says where the holder serves, for whoever starts a second one. */
  servesAt(url: string): void {
    this.write(url, 'w')
  }

  release(): void {
    rmSync(this.file, { force: true })
  }

  private read(): Holder | null {
    try {
      return JSON.parse(readFileSync(this.file, 'utf8')) as Holder
    } catch {
      return null
    }
  }

  private write(url: string | null, flag: 'w' | 'wx'): void {
    writeFileSync(this.file, JSON.stringify({ pid: process.pid, url } satisfies Holder), { flag })
  }
}
