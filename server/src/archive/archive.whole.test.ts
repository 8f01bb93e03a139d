import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import type { ProblemError } from '../problems/problem.ts'
import { inShop } from '../db/work.ts'
import { startShop, type RunningShop } from '../testing/shop.ts'
import { rebuildState } from '../state/bikeState.ts'
import { takeIn, type TakenIn } from './archiveIn.ts'
import { Scratch } from '../transfers/scratch.ts'
import { writeArchive } from './archiveOut.ts'
import { SHOPS } from '../auth/models.ts'
import { CUSTOMERS } from '../bikes/models.ts'

let shop: RunningShop
let lines: string[]
beforeAll(async () => {
  shop = await startShop()
  lines = await archiveOf((await shop.device.ask(endpoints.session)).body.shop.id)
})
afterAll(() => shop.close())

async function archiveOf(id: string): Promise<string[]> {
  return new Scratch().during(id, async (folder) => {
    const path = join(folder, 'archive')
    const of = { id, name: 'Saltmarsh Row Cycles', timeZone: 'Europe/London' }
    await writeArchive(shop.database, of, path, new AbortController().signal)
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
  inShop(shop.database, id, null, (work) => takeIn(work, Readable.from(given)))
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
        .replace(/"role": "[\w-]+"|"active": (true|false)|"elsewhere": (true|false)/g, '')
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
