import {
  DataTypes,
  type AbstractDataType,
  type AbstractDataTypeConstructor,
  type Model,
  type ModelAttributes,
  type ModelStatic,
} from 'sequelize'

declare const HOLDS: unique symbol
type DataType = AbstractDataType | AbstractDataTypeConstructor

/** A column: what it holds, and whether a new row may leave it out. */
export interface Column<Value, May extends boolean = boolean> {
  readonly type: DataType
  readonly primaryKey?: true
  readonly defaultValue?: unknown
  readonly [HOLDS]?: readonly [Value, May]
}
export type Columns = Readonly<Record<string, Column<unknown>>>
type Held<C> = C extends Column<infer Value> ? Value : never

/** A table as it is declared, once: its rows, their columns, what each holds. */
export interface Table<C extends Columns = Columns> {
  readonly name: string
  readonly columns: C
}
/** A whole row of a table. */
export type RowOf<T extends Table> = { -readonly [K in keyof T['columns']]: Held<T['columns'][K]> }
/** Columns a new row may leave out: what may be nothing, and what has a value of its own. */
type Open<C> = { [K in keyof C]: C[K] extends Column<unknown, true> ? K : never }[keyof C]
/** A row as it is written: a column it leaves out that it may not, or that there is not, does not compile. */
export type NewRowOf<T extends Table> = Partial<RowOf<T>> & Omit<RowOf<T>, Open<T['columns']>>
/** A table as it is read and written. */
export type ModelOf<T extends Table> = ModelStatic<Model<RowOf<T>, NewRowOf<T>> & RowOf<T>>

/**
 * Declares a table. None has its `shop_id`: the database fills it in from the transaction's shop and hides other shops' rows, so code cannot
 * name a shop wrongly, or forget it.
 */
export const table = <C extends Columns>(name: string, columns: C): Table<C> => ({ name, columns })

/** What the library is told of a table. It writes into what it is given, so each time gets its own. */
export const attributesOf = ({ columns }: Table): ModelAttributes =>
  Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, { ...column }])) as ModelAttributes

export const uuid = (): Column<string, false> => ({ type: DataTypes.UUID })
export const text = <Value extends string = string>(): Column<Value, false> => ({ type: DataTypes.TEXT })
export const integer = (): Column<number, false> => ({ type: DataTypes.INTEGER })
export const real = (): Column<number, false> => ({ type: DataTypes.DOUBLE })
export const flag = (): Column<boolean, false> => ({ type: DataTypes.BOOLEAN })
export const moment = (): Column<Date, false> => ({ type: DataTypes.DATE })
/** A day without a clock, YYYY-MM-DD. */
export const day = (): Column<string, false> => ({ type: DataTypes.DATEONLY })
export const json = <Value>(): Column<Value, false> => ({ type: DataTypes.JSONB })
export const bytes = (): Column<Buffer, false> => ({ type: DataTypes.BLOB })
export const integers = (): Column<number[], false> => ({ type: DataTypes.ARRAY(DataTypes.INTEGER) })
export const reals = (): Column<number[], false> => ({ type: DataTypes.ARRAY(DataTypes.DOUBLE) })
export const texts = <Value extends string = string>(): Column<Value[], false> => ({
  type: DataTypes.ARRAY(DataTypes.TEXT),
})
export const uuids = (): Column<string[], false> => ({ type: DataTypes.ARRAY(DataTypes.UUID) })
/** From one moment to another, or on. */
type Range = readonly [{ value: Date; inclusive: boolean }, { value: Date | null; inclusive: boolean }]
export const range = (): Column<Range, false> => ({ type: DataTypes.RANGE(DataTypes.DATE) })

/** What rows are found by. */
export const key = <Value>(column: Column<Value, false>): Column<Value, false> => ({ ...column, primaryKey: true })
/** May be nothing. */
export const maybe = <Value>(column: Column<Value, false>): Column<Value | null, true> =>
  column as unknown as Column<Value | null, true>
/** Is this, where a new row says nothing else; null: what the database has for it. */
export const usually = <Value>(column: Column<Value, false>, value: Value | null): Column<Value, true> =>
  (value === null ? column : { ...column, defaultValue: value }) as unknown as Column<Value, true>

/** What every fact says beside what it is about. */
export const fact = {
  id: key(uuid()),
  occurredAt: moment(),
  recordedAt: moment(),
  personId: uuid(),
  deviceId: maybe(uuid()),
  supersedesId: maybe(uuid()),
  reason: maybe(text()),
  deleted: usually(flag(), null),
}
