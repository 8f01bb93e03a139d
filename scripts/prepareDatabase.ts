import { randomBytes } from 'node:crypto'
import { hash } from '@node-rs/argon2'
import { ConnectionError } from 'sequelize'
import { v7 } from 'uuid'
import { SHIPPED_RULES } from '@pelrin/core'
import { inShop, loadDemo, migrateUp, NewerSchemaError, openDatabase, type Database } from '@pelrin/server/db'
import { PlainError, say } from './plain.ts'

/**
 * Brings a database to where the server can serve from it: the schema, and a first shop.
 *
 * @param url its address
 * @param demo whether an empty database gets the demo shop or an empty one
 * @throws PlainError when it does not answer, or was made by a newer Pelrin
 */
export async function prepareDatabase(url: string, demo: boolean): Promise<void> {
  const database = openDatabase(url)
  try {
    const { applied, before } = await migrateUp(database.sequelize)
    if (applied.length > 0 && before > 0)
      say(`The database was of an older Pelrin; brought it up to date (${applied.join(', ')}).`)
    if ((await database.models.Shop.count()) > 0) return
    if (demo) await loadWithProgress(database)
    else await makeEmptyShop(database)
  } catch (error) {
    if (error instanceof NewerSchemaError)
      throw new PlainError(`${error.message} Update Pelrin, or choose another folder with --data.`)
    if (error instanceof ConnectionError) {
      const { host } = new URL(url)
      const why = (error.parent as { code?: string; message: string }).code ?? error.parent.message
      throw new PlainError(`The database at ${host} does not answer (${why}). Check DATABASE_URL and that it runs.`)
    }
    throw error
  } finally {
    await database.close()
  }
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
  await database.models.Shop.create({
    id: shopId,
    code: 'workshop',
    name: 'My workshop',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    distanceUnit: 'km',
    demo: false,
  })
  await inShop(database, shopId, null, async ({ models, transaction, now }) => {
    const owner = v7()
    await models.Person.create(
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
    for (const [i, { school, limits, watchShare }] of SHIPPED_RULES.entries()) {
      const id = v7()
      await models.HouseRule.create({ id, school, isDefault: i === 0 }, { transaction })
      await models.HouseRuleVersion.create(
        { id: v7(), houseRuleId: id, version: 1, limits, watchShare, validFrom: now },
        { transaction },
      )
    }
    const instrumentId = v7()
    await models.Instrument.create({ id: instrumentId, kind: 'steel-rule', name: 'Steel rule' }, { transaction })
    await models.InstrumentVersion.create(
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
