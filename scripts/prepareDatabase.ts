import { randomBytes } from 'node:crypto'
import { hash } from '@node-rs/argon2'
import { ConnectionError } from 'sequelize'
import { v7 } from 'uuid'
import { SHIPPED_RULES } from '@pelrin/core'
import {
  askForRebuild,
  diskIsFull,
  grantServing,
  inShop,
  installQueue,
  loadDemo,
  migrateUp,
  NewerSchemaError,
  openDatabase,
  type Database,
} from '@pelrin/server/db'
import { PlainError, say } from './plain.ts'
import { PEOPLE, SHOPS } from '../server/src/auth/models.ts'
import { INSTRUMENTS, INSTRUMENT_VERSIONS } from '../server/src/instruments/models.ts'
import { HOUSE_RULES, HOUSE_RULE_VERSIONS } from '../server/src/limits/models.ts'

/** Where a database is, as those who sign in to it. */
export interface DatabaseUrls {
  /** As the server signs in. */
  readonly url: string
  /** As the owner of its tables; the same as the server where nobody keeps the two apart. */
  readonly ownerUrl: string
}

/**
 * Brings a database to where the server can serve from it: the schema, the queue, what the server may do there, and a first shop.
 *
 * @param demo whether an empty database gets the demo shop or an empty one
 * @returns whether a demo shop is in it
 * @throws PlainError when it does not answer, or was made by a newer Pelrin
 */
export async function prepareDatabase({ url, ownerUrl }: DatabaseUrls, demo: boolean): Promise<{ demo: boolean }> {
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
    if (shops.length > 0) return { demo: shops.some((shop) => shop.demo) }
    if (demo) await loadWithProgress(database)
    else await makeEmptyShop(database)
    return { demo }
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

/** A shop to begin with: an owner with a password said once, a rule to measure with, the shipped house rules. */
async function makeEmptyShop(database: Database): Promise<void> {
  const shopId = v7()
  const password = randomBytes(9).toString('base64url')
  // One transaction: a start that is interrupted leaves no shop without people.
  await inShop(database, shopId, null, async ({ of, transaction, now }) => {
    await of(SHOPS).create(
      {
        id: shopId,
        code: 'workshop',
        name: 'My workshop',
        timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        distanceUnit: 'km',
        demo: false,
      },
      { transaction },
    )
    const owner = v7()
    await of(PEOPLE).create(
      {
        id: owner,
        name: 'Owner',
        initials: 'O',
        signInName: 'owner',
        role: 'owner',
        passwordHash: await hash(password),
        active: true,
      },
      { transaction },
    )
    // "As marked" has no limits of its own: the change mark of whichever instrument is named.
    const shipped = [...SHIPPED_RULES, { ...SHIPPED_RULES[0], school: 'as-marked' as const }]
    for (const [i, { school, limits, watchShare }] of shipped.entries()) {
      const id = v7()
      await of(HOUSE_RULES).create({ id, school, isDefault: i === 0 }, { transaction })
      await of(HOUSE_RULE_VERSIONS).create(
        { id: v7(), houseRuleId: id, version: 1, limits, watchShare, validFrom: now },
        { transaction },
      )
    }
    const instrumentId = v7()
    await of(INSTRUMENTS).create({ id: instrumentId, kind: 'steel-rule', name: 'Steel rule' }, { transaction })
    await of(INSTRUMENT_VERSIONS).create(
      {
        id: v7(),
        instrumentId,
        version: 1,
        uMm: 0.25,
        bias: 0,
        biasU: 0,
        validFrom: now,
        personId: owner,
        reason: 'taken into use',
      },
      { transaction },
    )
  })
  say(`Made an empty shop. Sign in as "owner" with the password ${password} (said only now).`)
}
