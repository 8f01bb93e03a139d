import type { BikeChains, ChainThing, OfBike } from '@pelrin/contract'
import type { Assumptions, OldFate } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import {
  bikeDistance,
  distanceOfChain,
  shopRiding,
  type BikeDistance,
  type ShopRiding,
} from '../distance/bikeDistanceStore.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { jointOfChain } from '../parts/jointStore.ts'
import { chainFits } from './fits.ts'
import { asChainJoint } from './joints.ts'
import { swapToUndo } from './swaps.ts'

interface Row {
  id: string
  version: number
  name: string
  pitches: number | null
  care: ChainThing['care']
  fate: OldFate | null
  partId: string | null
  /** Its latest fitting; null for one that never ran here. */
  last: { bikeId: string; customerId: string; from: string; to: string | null; start: string } | null
  on: OfBike | null
  home: OfBike | null
  governing: ChainThing['governing']
}

const BIKE = (bike: string, customer: string): string =>
  `CASE WHEN ${bike}.id IS NULL THEN NULL
     ELSE json_build_object('id', ${bike}.id, 'label', ${bike}.label, 'customer', ${customer}.name) END`

const SELECT = `SELECT c.id, c.version, c.name, c.pitches, c.care, c.fate, c.part_id AS "partId",
    CASE WHEN f.id IS NULL THEN NULL ELSE json_build_object('bikeId', f.bike_id, 'customerId', fb.customer_id,
      'from', lower(f.during), 'to', upper(f.during), 'start', f.start) END AS last,
    CASE WHEN upper_inf(f.during) THEN ${BIKE('fb', 'fc')} END AS "on", ${BIKE('hb', 'hc')} AS home,
    CASE WHEN v.worst IS NULL THEN NULL ELSE json_build_object('value', v.worst -> 'value', 'over', v.worst -> 'over',
      'under', v.worst -> 'under', 'u', v.worst -> 'u', 'verdict', v.word,
      'at', to_char(r.occurred_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')) END AS governing
  FROM chains c
  LEFT JOIN LATERAL (SELECT * FROM fittings WHERE chain_id = c.id AND NOT isempty(during)
    ORDER BY lower(during) DESC LIMIT 1) f ON true
  LEFT JOIN bikes fb ON fb.id = f.bike_id LEFT JOIN customers fc ON fc.id = fb.customer_id
  LEFT JOIN bikes hb ON hb.id = c.home_bike_id LEFT JOIN customers hc ON hc.id = hb.customer_id
  LEFT JOIN LATERAL (SELECT word, outcome -> 'worst' AS worst FROM verdicts
    WHERE bike_id = f.bike_id AND chain_id = c.id AND NOT deleted AND jsonb_typeof(outcome -> 'worst') = 'object'
    ORDER BY recorded_at DESC, id DESC LIMIT 1) v ON true
  LEFT JOIN readings r ON r.id = CAST(v.worst ->> 'readingId' AS uuid)`

/** What chains ran, asked of each bike once however many of them ran on it. */
class Runs {
  private readonly riding: ShopRiding
  private readonly bikes = new Map<string, Promise<BikeDistance>>()

  constructor(
    private readonly work: Work,
    private readonly assumed: Assumptions,
  ) {
    this.riding = shopRiding(work)
  }

  /** By the last that was recorded of the bikes it ran on, km. */
  async kmOf(chainId: string, last: NonNullable<Row['last']>): Promise<number | null> {
    const { work, riding, assumed } = this
    const { bikeId, customerId, from, to, start } = last
    let here = this.bikes.get(bikeId)
    if (!here) this.bikes.set(bikeId, (here = bikeDistance(work, { id: bikeId, customerId }, assumed, riding)))
    const fitting = { chainId, bikeId, start, from: new Date(from) }
    const run = await distanceOfChain(work, fitting, await here, assumed, riding)
    return run.kmAt(to === null ? run.lastAt : new Date(to))
  }
}

async function asThing(work: Work, row: Row, runs: Runs): Promise<ChainThing> {
  const { fate, last, on, home, partId: _, ...head } = row
  const joint = await jointOfChain(work, row.id)
  return {
    ...head,
    state: on ? 'on' : (fate ?? 'off'),
    bike: on ?? (fate === 'rotation' ? home : null),
    km: last && (await runs.kmOf(row.id, last)),
    joint: joint && asChainJoint(joint),
  }
}

const rowsOf = (work: Work, where: string, values: Record<string, unknown>): Promise<Row[]> =>
  work.select<Row>(`${SELECT} ${where}`, values)

async function things(work: Work, rows: readonly Row[]): Promise<ChainThing[]> {
  const { assumed } = await assumptionsInForce(work)
  const runs = new Runs(work, assumed)
  const found: ChainThing[] = []
  for (const row of rows) found.push(await asThing(work, row, runs))
  return found
}

export async function chainById(work: Work, id: string): Promise<ChainThing | null> {
  const [found] = await things(work, await rowsOf(work, 'WHERE c.id = :id', { id }))
  return found ?? null
}

/** Chains that lie about: as many as a list shows. */
const LOOSE_SHOWN = 24
const OFF = '(f.id IS NULL OR NOT upper_inf(f.during))'

export async function bikeChains(work: Work, bikeId: string): Promise<BikeChains> {
  const rows = await rowsOf(
    work,
    `WHERE f.bike_id = :bikeId AND upper_inf(f.during) OR c.fate = 'rotation' AND c.home_bike_id = :bikeId AND ${OFF}
     ORDER BY c.name, c.id`,
    { bikeId },
  )
  const own = await things(work, rows)
  const about = await rowsOf(
    work,
    `WHERE (c.fate IN ('spare', 'training') OR c.fate = 'rotation' AND c.home_bike_id IS DISTINCT FROM :bikeId) AND ${OFF}
     ORDER BY c.name, c.id`,
    { bikeId },
  )
  const fits = await chainFits(work, bikeId)
  return {
    on: own.find(({ state }) => state === 'on') ?? null,
    rotation: own.filter(({ state }) => state !== 'on'),
    loose: await things(work, about.filter(({ partId }) => fits(partId)).slice(0, LOOSE_SHOWN)),
    undo: await swapToUndo(work, bikeId),
  }
}
