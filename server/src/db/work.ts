import { QueryTypes, Transaction } from 'sequelize'
import { v7 } from 'uuid'
import type { Database } from './connection.ts'
import { askPrepared } from './prepared.ts'
import { AUDIT } from './models.ts'

/** Who writes, on what, answering which request. */
export interface Author {
  readonly personId: string
  readonly deviceId: string | null
  readonly requestId: string | null
}

/**
 * One transaction in one shop. Stores take it as their first argument and have no other way to the database:
 * the shop is set on the transaction itself, and the database's own policies hold every statement in it to that
 * shop. A statement outside of one finds no rows and can write none.
 */
export interface Work {
  readonly shopId: string
  readonly transaction: Transaction
  /** A table as it is read and written. */
  readonly of: Database['of']
  readonly author: Author | null
  readonly now: Date
  /** Rows of a statement with named replacements, all in this shop. */
  select<Row extends object>(sql: string, replacements?: Record<string, unknown>): Promise<Row[]>
  /** Runs a statement that writes, of which nothing is to be read. */
  execute(sql: string, replacements?: Record<string, unknown>): Promise<void>
  /** Does something of which nothing stays where it throws, and all of the rest does. */
  savepoint<T>(job: () => Promise<T>): Promise<T>
  /** Does something, gives what came of it, and takes all of it back: what is promised is what would happen. */
  peek<T>(job: () => Promise<T>): Promise<T>
  /**
   * The same as `select` for statements asked for again and again, such as for each bike of a shop: the database keeps their plans, which take
   * longer to make than to follow. Their values are no lists, and the statement says what type each is where nothing else does.
   */
  prepared<Row extends object>(sql: string, values: Record<string, unknown>): Promise<Row[]>
}

/** What is known to be long is not ended for it, but neither may it hang for ever. */
const LONG = `SET LOCAL statement_timeout = '20min'; SET LOCAL lock_timeout = '60s';
  SET LOCAL idle_in_transaction_session_timeout = '20min'`

/**
 * Runs a piece of work in a shop: all of it or nothing.
 *
 * @param shopId the shop; every row read or written belongs to it
 * @param author who writes; null for reading and for the system itself
 * @param options `snapshot`: all of it sees one moment, whatever is written meanwhile; `long`: it goes through all of a shop, and may take
 *   minutes
 */
export async function inShop<T>(
  database: Database,
  shopId: string,
  author: Author | null,
  job: (work: Work) => Promise<T>,
  { snapshot = false, long = false }: { readonly snapshot?: boolean; readonly long?: boolean } = {},
): Promise<T> {
  const { sequelize, of } = database
  const isolation = snapshot ? { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ } : {}
  return sequelize.transaction(isolation, async (transaction) => {
    await sequelize.query(`SELECT set_config('pelrin.shop_id', :shopId, true)`, {
      replacements: { shopId },
      transaction,
    })
    if (long) await sequelize.query(LONG, { transaction })
    return job({
      shopId,
      transaction,
      of,
      author,
      now: new Date(),
      select: <Row extends object>(sql: string, replacements: Record<string, unknown> = {}) =>
        sequelize.query<Row>(sql, { replacements, transaction, type: QueryTypes.SELECT }),
      execute: async (sql, replacements = {}) => {
        await sequelize.query(sql, { replacements, transaction, type: QueryTypes.RAW })
      },
      savepoint: (job) => sequelize.transaction({ transaction }, job),
      peek: async (job) => {
        const savepoint = await sequelize.transaction({ transaction })
        try {
          return await job()
        } finally {
          await savepoint.rollback()
        }
      },
      prepared: <Row extends object>(sql: string, values: Record<string, unknown>) =>
        askPrepared<Row>(transaction, sql, values),
    })
  })
}

/**
 * Has the database look anew at what a table holds, or all of them: after many rows came in, it knows nothing of them by itself yet. By a
 * function of the tables' owner, since only an owner may.
 */
export const analyzeTables = async (work: Work, table: string | null = null): Promise<void> => {
  await work.select('SELECT pelrin_analyze(:table) AS done', { table })
}

/** The author of a piece of work that writes. */
export function authorOf(work: Work): Author {
  if (!work.author) throw new Error('this work has no author and may not write')
  return work.author
}

/** Writes down that something was done. */
export async function audited(
  work: Work,
  action: string,
  subjectKind: string,
  subjectId: string,
  detail: object = {},
): Promise<void> {
  await work.of(AUDIT).create(
    {
      id: v7(),
      at: work.now,
      personId: work.author?.personId ?? null,
      deviceId: work.author?.deviceId ?? null,
      requestId: work.author?.requestId ?? null,
      action,
      subjectKind,
      subjectId,
      detail,
    },
    { transaction: work.transaction },
  )
}
