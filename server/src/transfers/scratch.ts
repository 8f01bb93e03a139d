import { mkdir, mkdtemp, readdir, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ProblemError } from '../problems/problem.ts'

/** How often taking a folder away is tried: something may still be written to it. */
const TRIES = 5

/** A folder on disk for as long as a piece of work lasts. */
export interface Folder {
  readonly path: string
  /** Takes it away with all that is in it. Never fails: what could not be taken away is swept at the next start. */
  remove(): Promise<void>
}

/** What a shop may have lying on disk, in uploads that were not confirmed and downloads that were not fetched, bytes. */
const SHOP_BYTES = 3 * 1024 * 1024 * 1024

/**
 * Where files lie that are on their way in or out. Each piece of work has a folder of its own that names its process and its shop, so that
 * what a killed server left behind can be told from what is in use, and no shop fills the disk for the others.
 */
export class Scratch {
  /** @param most bytes a shop may have lying here */
  constructor(
    private readonly root = join(tmpdir(), `pelrin-scratch-${process.getuid?.() ?? 0}`),
    private readonly most = SHOP_BYTES,
  ) {}

  async folder(shopId: string): Promise<Folder> {
    await mkdir(this.root, { recursive: true, mode: 0o700 })
    const path = await mkdtemp(join(this.root, `${process.pid}-${shopId}-`))
    return { path, remove: () => this.remove(path) }
  }

  /** Does a piece of work in a folder that is gone afterwards, whatever became of it. */
  async during<T>(shopId: string, job: (folder: string) => Promise<T>): Promise<T> {
    const folder = await this.folder(shopId)
    try {
      return await job(folder.path)
    } finally {
      await folder.remove()
    }
  }

  /** Bytes a shop may still put here. @throws ProblemError 429 where it has too much lying here already */
  async roomOf(shopId: string): Promise<number> {
    const left = this.most - (await this.bytesOf(shopId))
    if (left <= 0) throw new ProblemError(429, 'upload-shop-full', { retryAfterSeconds: 60 })
    return left
  }

  /** Bytes a shop has lying here now, of all processes of this machine. */
  private async bytesOf(shopId: string): Promise<number> {
    const folders = (await this.folders()).filter((name) => name.includes(`-${shopId}-`))
    const sizes = await Promise.all(
      folders.map(async (name) => {
        const files = await readdir(join(this.root, name)).catch((): string[] => [])
        const each = await Promise.all(
          files.map((file) =>
            stat(join(this.root, name, file)).then(
              ({ size }) => size,
              () => 0,
            ),
          ),
        )
        return each.reduce((sum, size) => sum + size, 0)
      }),
    )
    return sizes.reduce((sum, size) => sum + size, 0)
  }

  /** Takes away what processes left behind that are gone. @returns how many folders */
  async sweep(): Promise<number> {
    const left = (await this.folders()).filter((name) => !isRunning(Number(name.split('-')[0])))
    for (const name of left) await this.remove(join(this.root, name))
    return left.length
  }

  private folders(): Promise<string[]> {
    return readdir(this.root).catch(() => [])
  }

  private async remove(path: string): Promise<void> {
    await rm(path, { recursive: true, force: true, maxRetries: TRIES, retryDelay: 50 }).catch(() => undefined)
  }
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    // Somebody else's process with this number runs: its files are not ours to judge.
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}
