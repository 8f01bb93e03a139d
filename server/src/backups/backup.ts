import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { promisify } from 'node:util'
import pg from 'pg'
import { v7 } from 'uuid'

const run = promisify(execFile)

/** What a backup is made with. */
export interface BackupTools {
  /** Folder of PostgreSQL's own programs. */
  readonly programs: string
  /** Signs in as one whom no policy holds back: every shop's rows are wanted. */
  readonly url: string
  /** Where backups lie. */
  readonly folder: string
}

/** A backup that was made whole and read through again. */
export interface Backup {
  readonly file: string
  readonly at: string
  readonly bytes: number
  readonly sha256: string
}

/** Older ones are thrown away. */
const KEPT = 14
const ENDING = '.dump'

/**
 * Makes a backup by PostgreSQL's own tool: of one moment, while everybody goes on working. It gets its name only once it is whole and its
 * table of contents was read back.
 *
 * @throws what the tool said, with nothing left behind
 */
export async function makeBackup({ programs, url, folder }: BackupTools, now: Date): Promise<Backup> {
  await mkdir(folder, { recursive: true, mode: 0o700 })
  const name = `pelrin-${now.toISOString().replaceAll(':', '').slice(0, 17)}${ENDING}`
  const part = join(folder, `.${name}.part`)
  try {
    // What waits in the queue is asked for anew by the rows themselves; and the password goes by the environment: arguments are there for everybody on the machine to read.
    const { address, env } = withoutPassword(url)
    // The tool writes into what is there: for its owner's eyes from the first byte.
    await writeFile(part, '', { mode: 0o600 })
    await run(
      join(programs, 'pg_dump'),
      ['--format=custom', '--exclude-schema=pelrin_jobs', `--file=${part}`, address],
      { env },
    )
    const { stdout } = await run(join(programs, 'pg_restore'), ['--list', part], { maxBuffer: 32 * 1024 * 1024 })
    if (!stdout.includes('TABLE DATA')) throw new Error('the backup holds no rows')
    const backup: Backup = {
      file: name,
      at: now.toISOString(),
      bytes: (await stat(part)).size,
      sha256: await digestOf(part),
    }
    await rename(part, join(folder, name))
    await writeFile(join(folder, `${name}.json`), JSON.stringify(backup), { mode: 0o600 })
    for (const old of (await backupsIn(folder)).slice(KEPT)) {
      await rm(join(folder, old.file), { force: true })
      await rm(join(folder, `${old.file}.json`), { force: true })
    }
    return backup
  } finally {
    await rm(part, { force: true })
  }
}

/** Backups that were made whole, newest first; none where there is no such folder. */
export async function backupsIn(folder: string): Promise<Backup[]> {
  const names = await readdir(folder).catch((): string[] => [])
  const notes = await Promise.all(
    names
      .filter((name) => name.endsWith(`${ENDING}.json`))
      .map(async (name) => JSON.parse(await readFile(join(folder, name), 'utf8')) as Backup),
  )
  const there = notes.filter(({ file }) => names.includes(file))
  return there.sort((a, b) => (a.at > b.at ? -1 : 1))
}

/**
 * Restores a backup into a database with nothing in it, all or nothing.
 *
 * @param file path of the backup
 * @param into the database's address
 * @throws Error for one that is not as it was made, or a database that holds something
 */
export async function restoreBackup(programs: string, file: string, into: string): Promise<void> {
  const note = JSON.parse(await readFile(`${file}.json`, 'utf8').catch(() => 'null')) as Backup | null
  if (note && note.sha256 !== (await digestOf(file)))
    throw new Error(`${basename(file)} is not as it was made: it was changed, or copied in part.`)
  const client = new pg.Client({ connectionString: into })
  await client.connect()
  try {
    const { rows } = await client.query<{ n: number }>(
      `SELECT count(*)::int AS n FROM pg_tables WHERE schemaname = 'public'`,
    )
    if (rows[0]!.n > 0) throw new Error('The database to restore into holds tables already. Name an empty one.')
  } finally {
    await client.end()
  }
  const { address, env } = withoutPassword(into)
  await run(join(programs, 'pg_restore'), ['--exit-on-error', '--single-transaction', `--dbname=${address}`, file], {
    env,
  })
}

/** Writes down in every shop of a restored database that it is one: what was done after the backup was made is not in it. */
export async function noteRestored(into: string, file: string): Promise<void> {
  const client = new pg.Client({ connectionString: into })
  await client.connect()
  try {
    const { rows } = await client.query<{ id: string }>('SELECT id FROM shops')
    for (const { id } of rows)
      await client.query(
        `INSERT INTO audit (shop_id, id, at, action, subject_kind, subject_id, detail) VALUES ($1, $2, now(), 'restored', 'shop', $1, $3)`,
        [id, v7(), JSON.stringify({ file })],
      )
  } finally {
    await client.end()
  }
}

function withoutPassword(url: string): { address: string; env: NodeJS.ProcessEnv } {
  const address = new URL(url)
  const password = decodeURIComponent(address.password)
  address.password = ''
  return { address: address.toString(), env: { ...process.env, PGPASSWORD: password } }
}

async function digestOf(file: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer)
  return hash.digest('hex')
}
