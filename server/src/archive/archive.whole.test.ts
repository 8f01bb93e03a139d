import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import type { ProblemError } from '../problems/problem.ts'
import { inShop } from '../db/work.ts'
import { startOwnShop, startShop, type RunningShop } from '../testing/shop.ts'
import { rebuildState } from '../state/bikeState.ts'
import { takeIn, type TakenIn } from './archiveIn.ts'
import { Scratch } from '../transfers/scratch.ts'
import { writeArchive } from './archiveOut.ts'
import { SHOPS } from '../auth/models.ts'
import { asShop } from '../sessions/describe.ts'
import { CUSTOMERS } from '../bikes/models.ts'

let shop: RunningShop
let lines: string[]
beforeAll(async () => {
  shop = await startShop()
  // A shop as it is used: rides that were pulled, a customer who was entered twice.
  const { id: shopId } = (await shop.device.ask(endpoints.session)).body.shop
  await inShop(shop.database, shopId, null, async (work) => {
    const id = v7()
    await work.execute(
      `INSERT INTO ride_accounts (id, bike_id, address, account, token, removed_at) SELECT :id, bike_id, 'x:1', 'a', '', now() FROM rides LIMIT 1`,
      { id },
    )
    await work.execute('UPDATE rides SET account_id = :id WHERE id = (SELECT id FROM rides ORDER BY id LIMIT 1)', {
      id,
    })
    await work.execute(
      'UPDATE customers SET merged_into_id = (SELECT max(id::text)::uuid FROM customers) WHERE id = (SELECT min(id::text)::uuid FROM customers)',
    )
  })
  lines = await archiveOf((await shop.device.ask(endpoints.session)).body.shop.id)
})
afterAll(() => shop.close())

async function archiveOf(id: string): Promise<string[]> {
  return new Scratch().during(id, async (folder) => {
    const path = join(folder, 'archive')
    const of = await shop.database.of(SHOPS).findByPk(id)
    await writeArchive(shop.database, asShop(of!), path, new AbortController().signal)
    return (await readFile(path, 'utf8')).trimEnd().split('\n')
  })
}
async function emptyShop(): Promise<string> {
  const id = v7()
  await shop.database.of(SHOPS).create({
    id,
    code: `shop-${id}`,
    name: 'Elsewhere',
    timeZone: 'Europe/London',
    distanceUnit: 'km',
    demo: false,
  })
  return id
}
const into = (id: string, given: readonly string[]): Promise<TakenIn[]> =>
  inShop(
    shop.database,
    id,
    null,
    async (work) => (await takeIn(work, Readable.from(given), { settings: false })).tables,
  )
const refusal = async (given: readonly string[]): Promise<[string, unknown]> => {
  const id = await emptyShop()
  const error = await into(id, given).then(
    () => null,
    (one: unknown) => one as ProblemError,
  )
  // Nothing of it is there.
  const left = await inShop(shop.database, id, null, (work) =>
    work.of(CUSTOMERS).count({ transaction: work.transaction }),
  )
  expect(left).toBe(0)
  return [error?.code ?? 'taken in', error?.values['line']]
}

describe('an archive of a whole shop', () => {
  it('brings it back into an empty one, and is the same line for line when taken out of there', async () => {
    const id = await emptyShop()
    const taken = await into(id, lines)
    expect(taken.every(({ same, conflicts }) => same === 0 && conflicts === 0)).toBe(true)
    expect(taken.find(({ name }) => name === 'bikes')!.added).toBe(119)
    const again = await archiveOf(id)
    // Its date apart, and what an archive says and nobody believes.
    const believed = (line: string): string =>
      line
        .replace(/"role": "[\w-]+"|"active": (true|false)|"elsewhere": (true|false)|"left_on": ("[\d-]+"|null)/g, '')
        .replace(/"sha256":"\w+"/, '')
    expect(again.slice(1).map(believed)).toEqual(lines.slice(1).map(believed))
    expect(JSON.parse(again[0]!)).toMatchObject({ pelrin: 'archive', version: 1 })
  })
  it('says of a shop that has it already that all is the same; what differs stays as it is', async () => {
    const id = await emptyShop()
    await into(id, lines)
    const renamed = await inShop(shop.database, id, null, (work) =>
      work.select<{ id: string }>(
        `UPDATE customers SET name = 'Somebody else' WHERE id = (SELECT id FROM customers ORDER BY id LIMIT 1) RETURNING id`,
      ),
    )
    const taken = await into(id, lines)
    expect(taken.every(({ added }) => added === 0)).toBe(true)
    expect(taken.filter(({ conflicts }) => conflicts > 0)).toMatchObject([{ name: 'customers', conflicts: 1 }])
    const kept = await inShop(shop.database, id, null, (work) =>
      work.of(CUSTOMERS).findByPk(renamed[0]!.id, { transaction: work.transaction }),
    )
    expect(kept!.name).toBe('Somebody else')
  })
  it('comes in from before bikes had a standing, schools came and marks were added: judged anew as everything is today', async () => {
    const older = (await readFile(join(import.meta.dirname, 'fixtures/before-standing.jsonl'), 'utf8'))
      .trimEnd()
      .split('\n')
    expect(older.some((line) => line.includes('"trouble_rank"'))).toBe(true)
    const id = await emptyShop()
    const taken = await into(id, older)
    expect(taken.every(({ conflicts }) => conflicts === 0)).toBe(true)
    const count = (name: string) => taken.find((one) => one.name === name)?.added
    expect([count('bikes'), count('readings'), count('spots'), count('bike_state')]).toEqual([2, 2, 6, undefined])
    await inShop(shop.database, id, null, rebuildState, { long: true })
    const states = await inShop(shop.database, id, null, (work) =>
      work.select<{ label: string; word: string; outlook: boolean }>(
        `SELECT b.label, s.word, s.outlook_from IS NOT NULL AS outlook FROM bike_state s JOIN bikes b ON b.id = s.bike_id ORDER BY 1`,
      ),
    )
    expect(states.map(({ label }) => label)).toEqual(['Estuary', 'Ferry'])
    // Taken out again it is what it was, and what has come since stands beside.
    expect((await into(id, older)).every(({ added, conflicts }) => added === 0 && conflicts === 0)).toBe(true)
  })
  it('gives nobody rights by what it says of them, and marks what it says was done as from elsewhere', async () => {
    const id = await emptyShop()
    await into(id, lines)
    const [people, audit] = await inShop(shop.database, id, null, async (work) => [
      await work.select<{ role: string; active: boolean }>('SELECT DISTINCT role, active FROM people'),
      await work.select<{ elsewhere: boolean }>('SELECT DISTINCT elsewhere FROM audit'),
    ])
    expect(people).toEqual([{ role: 'read-only', active: false }])
    expect(audit).toEqual([{ elsewhere: true }])
  })
  it('holds no secret, and nobody signs in by it', () => {
    const all = lines.join('\n')
    expect(all).not.toMatch(/argon2|causeway-1|pin_hash|shop_id/)
  })
  it('is refused with its line: truncated, changed, newer, of a foreign shop, with what no archive has, or none at all', async () => {
    const at = lines.findIndex((line) => line.includes('"table":"customers"'))
    const changed = (edit: (row: Record<string, unknown>) => object): string[] => {
      const { table, row } = JSON.parse(lines[at]!) as { table: string; row: Record<string, unknown> }
      return lines.with(at, JSON.stringify({ table, row: edit(row) }))
    }
    expect(await refusal(lines.slice(0, -1))).toEqual(['archive-truncated', lines.length - 1])
    expect(await refusal(lines.slice(0, -40).concat(lines.at(-1)!))).toEqual(['archive-changed', lines.length - 39])
    expect((await refusal(changed((row) => ({ ...row, name: 'Somebody else' }))))[0]).toBe('archive-changed')
    expect(await refusal(changed((row) => ({ ...row, shop_id: v7() })))).toEqual(['archive-foreign', at + 1])
    const many = Object.fromEntries(Array.from({ length: 100_000 }, (_, i) => [`key ${i}`, i]))
    expect(await refusal(changed((row) => ({ ...row, ...many })))).toEqual(['archive-column', at + 1])
    expect(await refusal([JSON.stringify({ pelrin: 'archive', version: 99 })])).toEqual(['archive-newer', 1])
    expect(await refusal(lines.with(at, '{"table":"sessions","row":{}}'))).toEqual(['archive-table', at + 1])
    expect(await refusal(lines.with(at, '{"table"'))).toEqual(['archive-line', at + 1])
    expect(await refusal(['name;phone'])).toEqual(['archive-none', 1])
    expect(await refusal([])).toEqual(['archive-none', 0])
  })
})

/** Sends an archive to a shop as its owner does. */
const sent = async (
  to: RunningShop,
  archive: string,
  query = '',
): Promise<{
  status: number
  body: { tables: TakenIn[]; replaces: boolean; settings: { name: string }[]; code?: string }
}> => {
  const answer = await to.device.raw(
    'POST',
    `/api/v1/archive${query}`,
    { 'content-type': 'application/octet-stream' },
    archive,
  )
  return { status: answer.status, body: (await answer.json()) as never }
}
/** What a shop holds, table by table, its rows as they are but for what an archive is not believed. */
const outOf = async (from: RunningShop): Promise<string> =>
  (await from.device.raw('GET', '/api/v1/archive.jsonl')).text()
const heldBy = (text: string): Map<string, string[]> => {
  const rows = new Map<string, string[]>()
  for (const line of text.trimEnd().split('\n').slice(1, -1)) {
    const { table, row } = JSON.parse(line) as { table: string; row: Record<string, unknown> }
    const { role: _, active: __, left_on: ___, elsewhere: ____, ...kept } = row
    rows.set(table, [...(rows.get(table) ?? []), JSON.stringify(kept)])
  }
  return rows
}

describe('an archive into the very shop that is made without a demo', () => {
  it('takes the place of what it was born with, row by row, all 119 bikes; settings follow where that is said', async () => {
    const own = await startOwnShop()
    const archive = await outOf(shop)
    const looked = await sent(own, archive)
    expect([looked.status, looked.body.replaces]).toEqual([200, true])
    expect(looked.body.settings.map(({ name }) => name).sort()).toEqual(['careWays', 'name', 'stands'])
    const taken = await sent(own, archive, '?apply=yes&settings=yes')
    expect([taken.status, taken.body.code]).toEqual([200, undefined])
    expect(taken.body.tables.every(({ conflicts }) => conflicts === 0)).toBe(true)
    const [from, into] = [heldBy(archive), heldBy(await outOf(own))]
    const others = ['people', 'devices', 'audit']
    expect([...into.keys()].sort()).toEqual([...from.keys()].sort())
    for (const [table, rows] of from) if (!others.includes(table)) expect(into.get(table), table).toEqual(rows)
    // Who came with it is there beside who took it in.
    for (const table of others) for (const row of from.get(table)!) expect(into.get(table)).toContain(row)
    expect(from.get('bikes')).toHaveLength(119)
    const session = (await own.device.ask(endpoints.session)).body
    expect(session.shop).toMatchObject({ name: 'Saltmarsh Row Cycles', code: 'slipway', stands: 3 })
    expect(session.people.map(({ name }) => name)).toEqual(['Wen Harrow'])
    const { body: people } = await own.device.ask(endpoints.people)
    const came = people.filter(({ name }) => name !== 'Wen Harrow')
    expect(came.length).toBe(from.get('people')!.length)
    expect(came.every(({ leftOn, hasPassword, role }) => leftOn !== null && !hasPassword && role === 'read-only')).toBe(
      true,
    )
    // The same once more: nothing is added, nothing made room.
    const again = await sent(own, archive)
    expect(again.body).toMatchObject({ replaces: false, settings: [] })
    expect(again.body.tables.every(({ added, conflicts }) => added === 0 && conflicts === 0)).toBe(true)
    await own.close()
  })
  it('is taken of a shop with nothing, too', async () => {
    const [from, own] = [await startOwnShop(), await startOwnShop()]
    const archive = await outOf(from)
    expect((await sent(own, archive, '?apply=yes')).status).toBe(200)
    const [there, here] = [heldBy(archive), heldBy(await outOf(own))]
    for (const table of ['house_rules', 'house_rule_versions', 'instruments', 'instrument_versions'])
      expect(here.get(table), table).toEqual(there.get(table))
    await Promise.all([from.close(), own.close()])
  })
  it('is refused whole, with a sentence, where the shop already works otherwise', async () => {
    const own = await startOwnShop()
    const { id } = (await own.device.ask(endpoints.session)).body.shop
    await inShop(own.database, id, null, (work) =>
      work.of(CUSTOMERS).create({ id: v7(), name: 'Nan Oake' }, { transaction: work.transaction }),
    )
    const refused = await sent(own, await outOf(shop), '?apply=yes')
    expect([refused.status, refused.body.code]).toEqual([409, 'archive-collides'])
    expect(heldBy(await outOf(own)).get('customers')).toHaveLength(1)
    await own.close()
  })
})
