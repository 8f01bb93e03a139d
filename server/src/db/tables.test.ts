import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { DataTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startShop, type RunningShop } from '../testing/shop.ts'
import type { Column, Table } from './table.ts'

const SOURCE = join(import.meta.dirname, '..')
const isTable = (value: unknown): value is Table =>
  typeof value === 'object' && value !== null && 'columns' in value && 'name' in value

let shop: RunningShop
const declared = new Map<string, Table>()
beforeAll(async () => {
  shop = await startShop()
  for (const folder of readdirSync(SOURCE)) {
    const file = join(SOURCE, folder, 'models.ts')
    if (!existsSync(file)) continue
    for (const one of Object.values((await import(file)) as object))
      if (isTable(one)) {
        expect(declared.has(one.name), one.name).toBe(false)
        declared.set(one.name, one)
      }
  }
})
afterAll(() => shop.close())

/** What the database calls a column's type. */
const TYPES = new Map<unknown, string>([
  [DataTypes.UUID, 'uuid'],
  [DataTypes.TEXT, 'text'],
  [DataTypes.INTEGER, 'integer'],
  [DataTypes.DOUBLE, 'double precision'],
  [DataTypes.BOOLEAN, 'boolean'],
  [DataTypes.DATE, 'timestamp with time zone'],
  [DataTypes.DATEONLY, 'date'],
  [DataTypes.JSONB, 'jsonb'],
  [DataTypes.BLOB, 'bytea'],
])
const typeOf = ({ type }: Column<unknown>): string =>
  TYPES.get(type) ?? (type instanceof DataTypes.RANGE ? 'tstzrange' : 'ARRAY')
const snake = (name: string): string => name.replace(/[A-Z]/g, (sign) => `_${sign.toLowerCase()}`)

interface Found {
  readonly table: string
  readonly name: string
  readonly type: string
  readonly made: boolean
}

describe('tables as they are declared', () => {
  it('are all there are, with all their columns, each of the type it is in the database', async () => {
    const [rows] = await shop.database.sequelize.query(
      `SELECT table_name AS "table", column_name AS name, data_type AS type, is_generated = 'ALWAYS' AS made
       FROM information_schema.columns WHERE table_schema = 'public' AND table_name <> 'schema_migrations'`,
    )
    const inDatabase = new Map<string, Record<string, string>>()
    for (const { table, name, type, made } of rows as Found[]) {
      // Which shop a row is of is the database's own affair, and what it makes of others it makes by itself.
      if ((name === 'shop_id' && !['sessions', 'invitations', 'api_tokens'].includes(table)) || made) continue
      inDatabase.set(table, { ...inDatabase.get(table), [name]: type })
    }
    const inCode = new Map(
      [...declared].map(([name, { columns }]) => [
        name,
        Object.fromEntries(Object.entries(columns).map(([column, of]) => [snake(column), typeOf(of)])),
      ]),
    )
    expect([...inCode.keys()].sort()).toEqual([...inDatabase.keys()].sort())
    for (const [table, columns] of inDatabase) expect(inCode.get(table), table).toEqual(columns)
  })
})
