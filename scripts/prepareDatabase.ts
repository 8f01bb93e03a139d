import { ConnectionError } from 'sequelize'
import {
  askForRebuild,
  beginShop,
  diskIsFull,
  grantServing,
  inShop,
  installQueue,
  linkForOwner,
  loadDemo,
  migrateUp,
  NewerSchemaError,
  openDatabase,
  waitsForFirstDay,
  type Database,
} from '@pelrin/server/db'
import { PlainError, say } from './plain.ts'
import { SHOPS } from '../server/src/auth/models.ts'

/** Where a database is, as those who sign in to it. */
export interface DatabaseUrls {
  /** As the server signs in. */
  readonly url: string
  /** As the owner of its tables; the same as the server where nobody keeps the two apart. */
  readonly ownerUrl: string
}

/** What a database has in it. */
export interface Prepared {
  readonly demo: boolean
  /** Lets the owner of a new shop in; null where nobody waits for that. */
  readonly firstDayToken: string | null
}

/**
 * Brings a database to where the server can serve from it: the schema, the queue, what the server may do there, and a first shop.
 *
 * @param demo whether an empty database gets the demo shop or an empty one
 * @returns whether a demo shop is in it, and the token of a first day nobody has come to yet
 * @throws PlainError when it does not answer, or was made by a newer Pelrin
 */
export async function prepareDatabase({ url, ownerUrl }: DatabaseUrls, demo: boolean): Promise<Prepared> {
  const database = openDatabase(ownerUrl)
  try {
    const { applied, before, outdated } = await migrateUp(database.sequelize)
    if (applied.length > 0 && before > 0)
      say(`The database was of an older Pelrin; brought it up to date (${applied.join(', ')}).`)
    await installQueue(ownerUrl)
    const serving = decodeURIComponent(new URL(url).username)
    if (url !== ownerUrl) await grantServing(database.sequelize, serving)
    if (outdated && before > 0)
      for (const { id } of await database.of(SHOPS).findAll()) await inShop(database, id, null, askForRebuild)
    const shops = await database.of(SHOPS).findAll()
    if (shops.length === 0) {
      if (demo) await loadWithProgress(database)
      else await beginShop(database, Intl.DateTimeFormat().resolvedOptions().timeZone)
    }
    const link = (await waitsForFirstDay(database)) ? await linkForOwner(database, {}) : null
    return { demo: shops.length === 0 ? demo : shops.some((shop) => shop.demo), firstDayToken: link?.token ?? null }
  } catch (error) {
    throw asPlain(error, ownerUrl)
  } finally {
    await database.close()
  }
}

/** What went wrong, as somebody at the keyboard can mend it, where they can. */
function asPlain(error: unknown, url: string): unknown {
  const { host, username } = new URL(url)
  if (error instanceof NewerSchemaError)
    return new PlainError(`${error.message} Update Pelrin, or choose another folder with --data.`)
  if (diskIsFull(error)) return new PlainError('The disk is full. Make room, then start again.')
  const parent = error instanceof Error && 'parent' in error ? error.parent : error
  const { code = '', message = '' } = (parent ?? {}) as { code?: string; message?: string }
  if (code === '42501')
    return new PlainError(
      `The role "${username}" may not make tables in the database at ${host} (${message}). Name its owner in DATABASE_OWNER_URL.`,
    )
  if (code === '28P01' || code === '28000')
    return new PlainError(`The database at ${host} does not let "${username}" in. Check the name and the password.`)
  if (code === '3D000') return new PlainError(`The database at ${host} is not there (${message}). Make it first.`)
  if (error instanceof ConnectionError || /^E(CONN|NOTFOUND|TIMEDOUT|AI_AGAIN)/.test(code))
    return new PlainError(
      `The database at ${host} does not answer (${code || message}). Check DATABASE_URL and that it runs.`,
    )
  return error
}

async function loadWithProgress(database: Database): Promise<void> {
  const live = process.stdout.isTTY
  const write = (text: string): void => void process.stdout.write(live ? `\r${text}` : '')
  if (!live) say('Loading the demo shop …')
  const { bikes, readings } = await loadDemo(database, new Date(), (done, of) =>
    write(`Loading the demo shop … ${Math.round((100 * done) / of)} %`),
  )
  write('')
  say(`Loaded the demo shop: ${bikes} bikes, ${readings} readings over two years.`)
}
