import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type CatalogueImported, type CatalogueItem, type CataloguePreview } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { Device, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const linesOf = async (query: Record<string, string>) => (await shop.device.ask(endpoints.catalogue, { query })).body
const partOf = async (q: string, kind = 'chain'): Promise<CatalogueItem> => {
  const { parts } = await linesOf({ q, kind })
  return (await shop.device.ask(endpoints.cataloguePart, { params: { id: parts[0]!.id } })).body
}
const move = (id: string, kind: string, quantity: number, more: Record<string, unknown> = {}) =>
  shop.device.ask(endpoints.moveStock, { params: { id }, body: { id: v7(), kind, quantity, ...more } })

describe('the catalogue', () => {
  it('is a hundred and twenty parts of every kind, in pages, found by words of maker and name', async () => {
    const first = await linesOf({})
    expect(first.total).toBeGreaterThan(110)
    const second = await linesOf({ cursor: first.next! })
    expect(first.parts.length + second.parts.length).toBe(first.total)
    const names = [...first.parts, ...second.parts].map(({ maker, name }) => `${maker} ${name}`)
    expect(names).toEqual([...names].sort((a, b) => (a < b ? -1 : 1)))
    expect(new Set([...first.parts, ...second.parts].map(({ kind }) => kind)).size).toBe(12)
    const found = await linesOf({ q: 'elev varr' })
    expect(found.parts.map(({ name }) => name)).toContain('Eleven')
    expect(found.parts.every(({ maker }) => maker === 'Varrow')).toBe(true)
    expect((await shop.device.ask(endpoints.catalogue, { query: { cursor: 'x' } })).status).toBe(400)
  })
  it('adds a part from its words, and says at each field what is wrong', async () => {
    const cells = { kind: 'link', maker: 'Mabry', name: 'Link 14', speeds: '14', price: '9,90', stock: '4', reuse: '3' }
    const wrong = await shop.device.ask(endpoints.addPart, {
      body: { id: v7(), cells: { ...cells, speeds: '', outerMm: 'narrow', stock: '-4' } },
    })
    expect(wrong.status).toBe(422)
    expect(wrong.problem.fields?.map(({ path, code }) => [path, code])).toEqual([['outerMm', 'number-malformed']])
    const id = v7()
    const added = await shop.device.ask(endpoints.addPart, { body: { id, cells } })
    expect(added.body).toMatchObject({ id, price: 990, stock: 4, movements: [{ kind: 'counted', change: 4 }] })
    const again = await shop.device.ask(endpoints.addPart, { body: { id: v7(), cells } })
    expect(again.problem.fields?.[0]).toMatchObject({ path: 'name', code: 'part-name-taken' })
  })
  it('changes by version, keeps the stock out of it, and tells matching at once', async () => {
    const { id, version, cells } = await partOf('korvane ten')
    const before = (await shop.device.ask(endpoints.matchingCatalogue)).body
    const changed = await shop.device.ask(endpoints.changePart, {
      params: { id },
      version,
      body: { cells: { ...cells, price: '21.50', stock: '900', approvedFor: 'Varrow Gannet 11' } },
    })
    expect(changed.body).toMatchObject({ price: 2150, stock: Number(cells['stock']), version: version + 1 })
    const after = (await shop.device.ask(endpoints.matchingCatalogue)).body
    expect(after.version).toBeGreaterThan(before.version)
    expect(after.chains.find((one) => one.id === id)?.price).toBe(2150)
    const stale = await shop.device.ask(endpoints.changePart, { params: { id }, version, body: { cells } })
    expect([stale.status, (stale.problem.current as CatalogueItem).price]).toEqual([412, 2150])
  })
  it('lets a part go only while nobody waits for it', async () => {
    const { id, version } = await partOf('tindrel lockgate')
    const { body: bikes } = await shop.device.ask(endpoints.find, { query: { q: 'bakery van 2' } })
    const keptId = v7()
    const keep = { id: keptId, pitches: 110, lines: [{ id: v7(), partId: id, quantity: 1, included: false }] }
    await shop.device.ask(endpoints.keepParts, { params: { id: bikes[0]!.id }, body: keep })
    const refused = await shop.device.ask(endpoints.removePart, { params: { id }, version })
    expect([refused.status, refused.problem.code]).toEqual([409, 'part-in-use'])
    await shop.device.ask(endpoints.dropParts, { params: { id: keptId }, version: 1 })
    expect((await shop.device.ask(endpoints.removePart, { params: { id }, version })).status).toBe(204)
    expect((await shop.device.ask(endpoints.cataloguePart, { params: { id } })).status).toBe(404)
  })
})

describe('stock', () => {
  it('is what came less what was used, and what was counted puts it right', async () => {
    const { id, stock } = await partOf('varrow eleven s')
    expect((await move(id, 'received', 4)).body.stock).toBe(stock + 4)
    expect((await move(id, 'used', 1)).body.stock).toBe(stock + 3)
    const counted = (await move(id, 'counted', 2, { note: 'behind the drawer' })).body
    expect(counted.stock).toBe(2)
    expect(counted.movements[0]).toMatchObject({ kind: 'counted', change: 2 - stock - 3, note: 'behind the drawer' })
    const [sum] = await inShop(shop.database, (await shop.device.ask(endpoints.session)).body.shop.id, null, (work) =>
      work.select<{ apart: number }>(
        `SELECT count(*)::int AS apart FROM parts p WHERE p.stock <> coalesce(
           (SELECT sum(m.change) FROM stock_movements m WHERE m.part_id = p.id), 0)`,
      ),
    )
    expect(sum?.apart).toBe(0)
  })
  it('never falls below none, also when two take the last one at once', async () => {
    const { id } = await partOf('varrow eleven s')
    await move(id, 'counted', 1)
    const both = await Promise.all([move(id, 'used', 1), move(id, 'used', 1)])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 422])
    const refused = both.find(({ status }) => status === 422)!
    expect(refused.problem.fields?.[0]).toMatchObject({ path: 'quantity', code: 'stock-short' })
    const negative = await move(id, 'received', -3)
    expect(negative.problem.fields?.[0]).toMatchObject({ path: 'quantity', code: 'stock-negative' })
  })
  it('is moved once however often a movement is sent', async () => {
    const { id, stock } = await partOf('mabry nine')
    const body = { id: v7(), kind: 'received', quantity: 2 }
    for (let i = 0; i < 2; i++)
      await shop.device.ask(endpoints.moveStock, { params: { id }, body, key: 'once-and-for-all' })
    expect((await partOf('mabry nine')).stock).toBe(stock + 2)
  })
  it('says when it is time to order', async () => {
    const { id } = await partOf('mabry nine')
    await move(id, 'counted', 1)
    const { parts, low } = await linesOf({ low: 'yes' })
    expect(parts.map((part) => part.id)).toContain(id)
    expect(parts.length).toBe(low)
    await move(id, 'received', 1)
    expect((await linesOf({ low: 'yes' })).parts.map((part) => part.id)).not.toContain(id)
  })
})

const HEADER = 'kind;maker;name;speeds;price;stock;inBox;joints'

async function send(
  path: string,
  text: string,
  fields: Record<string, string> = {},
  device: Device = shop.device,
  key: string = v7(),
): Promise<{ status: number; body: unknown }> {
  const form = new FormData()
  for (const [name, value] of Object.entries(fields)) form.append(name, value)
  form.append('files', new Blob([text]), 'parts.csv')
  const response = await fetch(`${device.base}/api/v1${path}`, {
    method: 'POST',
    headers: { cookie: device.cookie, 'idempotency-key': key },
    body: form,
  })
  return { status: response.status, body: await response.json() }
}
const preview = async (text: string, mapping?: Record<string, string>): Promise<CataloguePreview> =>
  (await send('/catalogue/preview', text, mapping ? { mapping: JSON.stringify(mapping) } : {})).body as CataloguePreview
const take = async (text: string, skip: number[] = []): Promise<CatalogueImported> => {
  const { mapping, fingerprint } = await preview(text)
  const fields = { mapping: JSON.stringify(mapping), fingerprint, skip: JSON.stringify(skip) }
  return (await send('/catalogue/import', text, fields)).body as CatalogueImported
}

describe('the catalogue as a table', () => {
  it('is previewed: what is new, what changes and how, what is wrong in which cell; nothing is written', async () => {
    const before = (await linesOf({})).total
    const seen = await preview(
      [
        HEADER,
        'chain;Mabry;Causeway 10;10;"1.019,50";2;116;link, pin',
        'chain;Varrow;Ten;;"18,60";;;',
        'chain;Mabry;"Long\nname";10;12;0;116;link',
        'chain;Mabry;Wrong;10;cheap;-1;115;link',
        'chain;Mabry;=1+1;10;12;0;116;link',
        'chain;Mabry;Causeway 10;10;5;0;116;link',
      ].join('\r\n'),
    )
    expect(seen.counts).toEqual({ new: 2, changed: 1, same: 0, wrong: 3 })
    expect(seen.mapping).toMatchObject({ kind: 'kind', price: 'price', inBox: 'inBox' })
    const row = (number: number) => seen.rows.find((one) => one.row === number)
    expect(row(2)?.changes).toEqual([{ field: 'price', from: '18.50', to: '18.60' }])
    expect(row(3)?.name).toBe('Mabry Long\nname')
    expect(row(4)?.problems).toContainEqual({ field: 'price', code: 'number-malformed', cell: 'cheap' })
    expect(row(5)?.problems).toContainEqual({ field: 'name', code: 'cell-formula', cell: '=1+1' })
    expect(row(6)?.problems[0]).toMatchObject({ code: 'row-twice' })
    expect((await linesOf({})).total).toBe(before)
  })
  it('is taken with all of its good rows or the chosen ones, counted into stock, and once', async () => {
    const text = `\ufeff${HEADER}\nchain;Mabry;Pier 10;10;10,00;7;116;link\nchain;Mabry;Pier 9;9;9,00;1;116;link\n`
    expect(await take(text, [2])).toEqual({ added: 1, changed: 0, left: 1 })
    const { movements } = await partOf('mabry pier 10')
    expect(movements).toMatchObject([{ kind: 'counted', change: 7 }])
    expect((await linesOf({ q: 'pier 9' })).parts).toEqual([])
    expect(await take(text)).toEqual({ added: 1, changed: 0, left: 1 })
  })
  it('goes out and comes in again as the same catalogue', async () => {
    const response = await shop.device.raw('GET', '/api/v1/catalogue.csv')
    const text = await response.text()
    expect(response.headers.get('content-type')).toContain('text/csv')
    const { counts } = await preview(text)
    expect(counts).toMatchObject({ new: 0, changed: 0, wrong: 0 })
    expect(counts.same).toBe((await linesOf({})).total)
  })
  it('takes a price list by columns that are told, and leaves the rest as it was', async () => {
    const { cells } = await partOf('korvane nine')
    const text = 'Who,What,Now\nKorvane,Nine,17.77\n'
    const mapping = { maker: 'Who', name: 'What', price: 'Now' }
    const { counts, fingerprint } = await preview(text, mapping)
    expect(counts).toMatchObject({ changed: 1, wrong: 0 })
    await send('/catalogue/import', text, { mapping: JSON.stringify(mapping), fingerprint })
    expect((await partOf('korvane nine')).cells).toEqual({ ...cells, price: '17.77' })
  })
  it('refuses a file that is not the one that was previewed, what is no table, and who may not write', async () => {
    const text = `${HEADER}\nchain;Mabry;Pier 8;8;10,00;7;116;link\n`
    const { mapping, fingerprint } = await preview(text)
    const fields = { mapping: JSON.stringify(mapping), fingerprint }
    const other = await send('/catalogue/import', text.replace('10,00', '1,00'), fields)
    expect([other.status, (other.body as { code: string }).code]).toEqual([409, 'file-changed'])
    expect((await send('/catalogue/preview', 'one line of words')).status).toBe(422)
    const reader = new Device(shop.base)
    await reader.signIn('coral', 'slipway-4')
    expect((await send('/catalogue/preview', text, {}, reader)).status).toBe(403)
    expect((await send('/catalogue/import', text, { ...fields, mapping: '{' })).status).toBe(422)
  })
  it('leaves none of its files behind, whatever became of it', async () => {
    const text = `${HEADER}\nchain;Mabry;Pier 6;7;10,00;7;116;link\n`
    const { mapping, fingerprint } = await preview(text)
    const fields = { mapping: JSON.stringify(mapping), fingerprint }
    const key = v7()
    for (let i = 0; i < 2; i++) await send('/catalogue/import', text, fields, shop.device, key)
    await send('/catalogue/import', text, { ...fields, mapping: '{' })
    await send('/catalogue/preview', 'one line of words')
    const left = readdirSync(tmpdir())
      .filter((name) => name.startsWith('pelrin-import-'))
      .map((name) => join(tmpdir(), name, 'f0'))
      .filter((path) => existsSync(path) && readFileSync(path, 'utf8').includes('Mabry;Pier 6'))
    expect(left).toEqual([])
  })
  it('waits for who is changing a part, and loses neither change', async () => {
    const { id, version, cells } = await partOf('mabry nine')
    const text = 'maker,name,price\nMabry,Nine,11.11\n'
    const { mapping, fingerprint } = await preview(text)
    const fields = { mapping: JSON.stringify(mapping), fingerprint }
    const [changed, taken] = await Promise.all([
      shop.device.ask(endpoints.changePart, { params: { id }, version, body: { cells: { ...cells, level: 'pier' } } }),
      send('/catalogue/import', text, fields),
    ])
    expect(taken.status).toBe(200)
    const after = (await partOf('mabry nine')).cells
    // Whoever came second saw the first: the table keeps what it does not name, the form is told of the newer part.
    expect([changed.status, after['level']]).toEqual(changed.status === 200 ? [200, 'pier'] : [412, cells['level']])
    expect(after['price']).toBe('11.11')
  })
  it('is taken once, however often it is sent', async () => {
    const text = `${HEADER}\nchain;Mabry;Pier 7;7;10,00;7;116;link\n`
    const { mapping, fingerprint } = await preview(text)
    const fields = { mapping: JSON.stringify(mapping), fingerprint }
    const key = v7()
    const first = await send('/catalogue/import', text, fields, shop.device, key)
    const second = await send('/catalogue/import', text, fields, shop.device, key)
    expect(second.body).toEqual(first.body)
    expect((await linesOf({ q: 'mabry pier 7' })).parts).toHaveLength(1)
  })
  it('of tens of thousands of rows is read and written whole', async () => {
    const rows = Array.from(
      { length: 30_000 },
      (_, i) => `chain;Mabry;Bulk ${String(i).padStart(6, '0')};11;${10 + (i % 50)},50;${i % 4};116;link`,
    )
    const text = [HEADER, ...rows].join('\n')
    const seen = await preview(text)
    expect(seen.counts).toEqual({ new: 30_000, changed: 0, same: 0, wrong: 0 })
    expect(seen.rows.length).toBeLessThan(1_000)
    const fields = { mapping: JSON.stringify(seen.mapping), fingerprint: seen.fingerprint }
    const { body } = await send('/catalogue/import', text, fields)
    expect(body).toEqual({ added: 30_000, changed: 0, left: 0 })
    const page = await linesOf({ q: 'bulk 02998' })
    expect(page.parts.map(({ name, stock }) => [name, stock])).toContainEqual(['Bulk 029981', 1])
  })
})
