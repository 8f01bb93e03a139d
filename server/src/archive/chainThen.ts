import { v7 } from 'uuid'
import type { Work } from '../db/work.ts'
import { authorOf } from '../db/work.ts'
import { refuseField } from '../problems/problem.ts'
import { CHAINS, FITTINGS } from '../chains/models.ts'

/** A fitting of a bike as the rows of a table meet it. */
interface Met {
  readonly id: string
  readonly chainId: string
  readonly chain: string
  readonly from: Date
  readonly to: Date | null
}

/** What a table says was on a bike at a moment. */
export interface Said {
  readonly bikeId: string
  readonly at: Date
  /** The chain by its name, and by its id where the table has it; left out: whichever it was. */
  readonly chain?: string | undefined
  readonly chainId?: string | undefined
}

/** Fittings made of what the table says, by the piece of work they are made in: the next row may show that one ended sooner. */
const made = new WeakMap<object, Set<string>>()
const madeIn = ({ transaction }: Work): Set<string> => {
  const known = made.get(transaction) ?? new Set<string>()
  made.set(transaction, known)
  return known
}

/**
 * The chain that was on a bike when something happened, by the rows of a table that come in the order they happened: the one that is recorded,
 * or one made of what the row says. A chain the table names before the first that is recorded was on until that one went on; where the next row
 * names another, it was on until then.
 *
 * @throws ProblemError 422 where another chain is recorded as on it then, or nobody says which it was
 */
export async function chainThen(work: Work, said: Said): Promise<{ fittingId: string; chainId: string }> {
  const { bikeId, at, chain } = said
  const met = await work.select<Met>(
    `SELECT f.id, f.chain_id AS "chainId", h.name AS chain, lower(f.during) AS "from", upper(f.during) AS "to"
     FROM fittings f JOIN chains h ON h.id = f.chain_id WHERE f.bike_id = :bikeId AND NOT isempty(f.during) ORDER BY lower(f.during)`,
    { bikeId },
  )
  const on = met.find(({ from, to }) => from <= at && (to === null || to > at))
  if (on && (chain === undefined || same(on.chain, chain))) return { fittingId: on.id, chainId: on.chainId }
  if (chain === undefined)
    throw met.length === 0 ? refuseField('tag', 'bike-without-chain') : refuseField('at', 'chain-not-fitted-then')
  if (on && !madeIn(work).has(on.id)) throw refuseField('at', 'chain-not-fitted-then')
  const next = met.find(({ from }) => from > at)
  const until = on ? on.to : (next?.from ?? null)
  if (on) await ends(work, on, at)
  // A chain with nothing after it that is recorded is on the bike still.
  return fit(work, said, until, met)
}

const same = (one: string, other: string): boolean => one.trim().toLowerCase() === other.trim().toLowerCase()

const ends = (work: Work, { id, from }: Met, at: Date): Promise<void> =>
  work.execute('UPDATE fittings SET during = tstzrange(:from, :at) WHERE id = :id', { id, from, at })

async function fit(
  work: Work,
  { bikeId, at, chain, chainId: told }: Said,
  until: Date | null,
  met: readonly Met[],
): Promise<{ fittingId: string; chainId: string }> {
  const { of, transaction, now } = work
  const { personId } = authorOf(work)
  const known = met.find((one) => one.chainId === told || same(one.chain, chain!))
  const chainId = known?.chainId ?? told ?? v7()
  if (!known && !(await of(CHAINS).findByPk(chainId, { transaction })))
    await of(CHAINS).create({ id: chainId, name: chain!, pitches: null, care: 'unknown' }, { transaction })
  const id = v7()
  await of(FITTINGS).create(
    {
      id,
      bikeId,
      chainId,
      during: [
        { value: at, inclusive: true },
        { value: until, inclusive: false },
      ],
      start: 'unknown',
      personId,
      recordedAt: now,
    },
    { transaction },
  )
  madeIn(work).add(id)
  return { fittingId: id, chainId }
}
