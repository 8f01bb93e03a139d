import { createHash, randomBytes } from 'node:crypto'
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { basename, dirname, join, resolve } from 'node:path'
import { spawnSync } from 'node:child_process'
import pg from 'pg'
import { PlainError, say } from '../plain.ts'
import { accountCanEnter, DATABASE_ACCOUNT, isRoot, run } from './account.ts'
import { killPostmaster, postmasterOf, stopPostmaster } from './postmaster.ts'
import { postgresPrograms } from './programs.ts'

/** A running private cluster. */
export interface Cluster {
  /** As the server signs in: it reads and writes rows, and owns nothing. */
  readonly url: string
  /** As the owner of the tables, who brings them up to date. */
  readonly ownerUrl: string
  /** The same database as its superuser: for backups, which want every shop's rows. */
  readonly adminUrl: string
  /** Whether it runs. */
  isUp(): boolean
  /** Starts it again where it lies, on the same port, whatever became of it. */
  restart(): Promise<void>
  /** Ends it, whatever it is at. */
  stop(): Promise<void>
  /** Ends it by force; what was written is there again when it starts. */
  kill(): Promise<void>
}

/** As long as recovering after a crash may take, seconds. */
const STARTING_SECONDS = 300

/** Written beside the cluster when it is whole; a folder without it was left half-made. */
const WHOLE = 'pelrin-made-this'

function freePort(): Promise<number> {
  return new Promise((done, reject) => {
    const probe = createServer()
    probe.on('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo
      probe.close(() => done(port))
    })
  })
}

function accountIds(): { uid: number; gid: number } {
  const id = (flag: string): number =>
    Number(spawnSync('id', [flag, DATABASE_ACCOUNT], { encoding: 'utf8' }).stdout.trim())
  return { uid: id('-u'), gid: id('-g') }
}

/**
 * Where the cluster lies: in the data folder, or, when root's data folder is one the database's account cannot
 * enter, in that account's own place, under a name made from the data folder's.
 */
function placeOf(dataFolder: string): string {
  if (!isRoot() || accountCanEnter(dataFolder)) return join(dataFolder, 'postgres')
  const name = createHash('sha256').update(dataFolder).digest('hex').slice(0, 12)
  const elsewhere = join('/var/lib/postgresql', `pelrin-${name}`)
  const note = join(dataFolder, 'where-the-database-is.txt')
  if (!existsSync(note)) {
    say(`The database's account cannot enter ${dataFolder}; the database lies in ${elsewhere}.`)
    writeFileSync(note, `${elsewhere}\n`)
  }
  return elsewhere
}

/** Who signs in to the database, and where their password lies. */
const ACCOUNTS = {
  postgres: 'database-password',
  pelrin_owner: 'owner-password',
  pelrin: 'serving-password',
} as const
type Account = keyof typeof ACCOUNTS
type Passwords = Readonly<Record<Account, string>>

/** The passwords of the cluster's accounts, each made once, readable by their owner only. */
function passwordsOf(dataFolder: string): Passwords {
  const entries = Object.entries(ACCOUNTS).map(([account, name]) => {
    const file = join(dataFolder, name)
    if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('base64url'), { mode: 0o600 })
    return [account, readFileSync(file, 'utf8').trim()]
  })
  return Object.fromEntries(entries) as Passwords
}

async function makeCluster(programs: string, place: string, password: string): Promise<void> {
  const making = `${place}.making`
  if (existsSync(making)) {
    say('An earlier start was interrupted while making the database; making it again.')
    rmSync(making, { recursive: true, force: true })
  }
  mkdirSync(making, { recursive: true, mode: 0o700 })
  const secret = join(making, 'secret')
  writeFileSync(secret, password, { mode: 0o600 })
  if (isRoot()) {
    const { uid, gid } = accountIds()
    chownSync(making, uid, gid)
    chownSync(secret, uid, gid)
  }
  say('Making the database …')
  // initdb wants an empty folder, so it gets one beside the secret.
  const made = await run(join(programs, 'initdb'), [
    '-D',
    join(making, 'cluster'),
    '-U',
    'postgres',
    '--auth=scram-sha-256',
    `--pwfile=${secret}`,
    '--encoding=UTF8',
    '--locale=C.UTF-8',
    '--data-checksums',
  ])
  if (made.code !== 0) {
    const last = made.output.trim().split('\n').at(-1) ?? ''
    rmSync(making, { recursive: true, force: true })
    throw new PlainError(`The database could not be made in ${place}: ${last}`)
  }
  rmSync(secret)
  writeFileSync(join(making, WHOLE), '')
  renameSync(making, place)
}

/** Refuses a folder that holds something else, and a cluster of another major version. */
function checkPlace(programs: string, place: string): boolean {
  if (!existsSync(place)) return false
  if (!existsSync(join(place, WHOLE))) {
    if (readdirSync(place).length > 0)
      throw new PlainError(
        `${place} holds files that are not a database of Pelrin's. Move them away, or choose another folder with --data.`,
      )
    rmSync(place, { recursive: true })
    return false
  }
  const theirs = readFileSync(join(place, 'cluster', 'PG_VERSION'), 'utf8').trim()
  const ours = basename(dirname(programs))
  if (theirs !== ours)
    throw new PlainError(
      `The database in ${place} is of PostgreSQL ${theirs}, but ${ours} is installed here. Install PostgreSQL ${theirs}, or choose another folder with --data.`,
    )
  return true
}

/**
 * Starts the private PostgreSQL cluster of a data folder, making it first when there is none. It listens on a free
 * loopback port with a password, keeps what it was told through a crash, and never runs as root.
 *
 * @param dataFolder where it lies (or what its place is named after)
 * @param options `throwaway` for tests: gives up durability for speed; `port` instead of a free one
 * @throws PlainError when the folder holds something else, or the database will not start
 */
export async function startCluster(
  dataFolder: string,
  options: { throwaway?: boolean; port?: number } = {},
): Promise<Cluster> {
  const folder = resolve(dataFolder)
  const programs = postgresPrograms()
  mkdirSync(folder, { recursive: true })
  const place = placeOf(folder)
  const known = existsSync(join(folder, ACCOUNTS.postgres))
  const passwords = passwordsOf(folder)
  const there = checkPlace(programs, place)
  if (!there) await makeCluster(programs, place, passwords.postgres)
  const cluster = join(place, 'cluster')
  const control = join(programs, 'pg_ctl')
  // Left running by a start that was killed: nobody else uses it, since the data folder is locked to us.
  await stopPostmaster(control, cluster)
  if (there && !known) await newPassword(programs, cluster, passwords.postgres)
  const port = options.port ?? (await freePort())
  const log = join(place, 'database.log')
  const settings = [
    `-p ${port}`,
    '-c listen_addresses=127.0.0.1',
    "-c unix_socket_directories=''",
    '-c max_connections=60',
    '-c timezone=UTC',
    ...(options.throwaway === true ? ['-c fsync=off', '-c full_page_writes=off', '-c synchronous_commit=off'] : []),
  ].join(' ')
  const start = async (): Promise<void> => {
    if (existsSync(log)) chmodSync(log, 0o600)
    const seconds = `${STARTING_SECONDS}`
    const started = await run(control, ['-D', cluster, '-l', log, '-o', settings, '-w', '-t', seconds, 'start'])
    if (started.code === 0) return
    const reason = existsSync(log) ? (readFileSync(log, 'utf8').trim().split('\n').at(-1) ?? '') : started.output.trim()
    throw new PlainError(`The database would not start: ${reason} (its log is ${log}).`)
  }
  await start()
  const stop = (): Promise<void> => stopPostmaster(control, cluster)
  const server = `127.0.0.1:${port}`
  const as = (account: Account, database = 'pelrin'): string =>
    `postgres://${account}:${passwords[account]}@${server}/${database}`
  try {
    await makeDatabase(as, passwords)
  } catch (error) {
    await stop()
    throw error
  }
  return {
    url: as('pelrin'),
    ownerUrl: as('pelrin_owner'),
    adminUrl: as('postgres'),
    isUp: () => postmasterOf(cluster) !== null,
    restart: async () => {
      await stopPostmaster(control, cluster)
      await start()
    },
    stop,
    kill: () => killPostmaster(cluster),
  }
}

/**
 * Gives the database a new password of its superuser, where the folder with the old one was deleted and the database was not: whoever may run its
 * programs on its files owns it anyway. Nothing listens meanwhile.
 */
async function newPassword(programs: string, cluster: string, password: string): Promise<void> {
  say('The folder with the database’s passwords is gone and the database is not: making new ones.')
  const quoted = password.replaceAll("'", "''")
  const { code, output } = await run(
    join(programs, 'postgres'),
    ['--single', '-D', cluster, 'postgres'],
    `ALTER ROLE postgres PASSWORD '${quoted}'\n`,
  )
  if (code !== 0)
    throw new PlainError(
      `The database in ${cluster} could not be given a new password: ${output.trim().split('\n').at(-1) ?? ''}`,
    )
}

/** The cluster of a data folder as its superuser sees it, where one runs; null where none does. */
export function runningCluster(dataFolder: string): { adminUrl: string } | null {
  const folder = resolve(dataFolder)
  const password = join(folder, ACCOUNTS.postgres)
  if (!existsSync(password)) return null
  const cluster = join(placeOf(folder), 'cluster')
  if (postmasterOf(cluster) === null) return null
  // The fourth line is its port.
  const port = readFileSync(join(cluster, 'postmaster.pid'), 'utf8').split('\n')[3]?.trim()
  return { adminUrl: `postgres://postgres:${readFileSync(password, 'utf8').trim()}@127.0.0.1:${port}/pelrin` }
}

/**
 * Makes the database and who signs in to it: its owner, who makes tables, and the one who serves, who can neither change a table nor switch off
 * the policies that keep shops apart. What an older Pelrin let the server own goes over to the owner.
 */
async function makeDatabase(as: (account: Account, database?: string) => string, passwords: Passwords): Promise<void> {
  const within = async (database: string, job: (client: pg.Client) => Promise<void>): Promise<void> => {
    const client = new pg.Client({ connectionString: as('postgres', database) })
    await client.connect()
    try {
      await job(client)
    } finally {
      await client.end()
    }
  }
  await within('postgres', async (client) => {
    for (const account of ['pelrin_owner', 'pelrin'] as const) {
      const { rows } = await client.query('SELECT 1 FROM pg_roles WHERE rolname = $1', [account])
      const word = rows.length === 0 ? 'CREATE' : 'ALTER'
      const password = client.escapeLiteral(passwords[account])
      await client.query(`${word} ROLE ${account} LOGIN NOSUPERUSER NOCREATEROLE NOCREATEDB PASSWORD ${password}`)
    }
    const { rows: databases } = await client.query(`SELECT 1 FROM pg_database WHERE datname = 'pelrin'`)
    await client.query(
      databases.length === 0
        ? 'CREATE DATABASE pelrin OWNER pelrin_owner'
        : 'ALTER DATABASE pelrin OWNER TO pelrin_owner',
    )
  })
  await within('pelrin', async (client) => {
    await client.query('REASSIGN OWNED BY pelrin TO pelrin_owner')
  })
}
