import { standingOf, type Standing, type VerdictWord } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { dayIn } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'

/** What stands today, for lists to filter, count and order by, in terms of `s` (state) and `:today`: the core's `standingOf`. */
export const STANDING_WORD = `CASE WHEN s.measure_from <= CAST(:today AS date) THEN 'measure-it' ELSE s.word END`

/** The chance of being over by today; null with no forecast. */
const CHANCE = `pelrin_chance_by(greatest(0, CAST(:today AS date) - s.outlook_from), s.outlook_reached)`

/** The chance a list shows: of what is to be measured by now, of everything else as it was measured. */
export const CHANCE_SHOWN = `CASE WHEN ${STANDING_WORD} = 'measure-it' THEN ${CHANCE} ELSE s.probability END`

/** A change that stands and was not decided otherwise. */
export const CHANGE_STANDS = `s.change_on IS NOT NULL AND (s.measure_from IS NULL OR s.measure_from > CAST(:today AS date))`

/** What is ordered first: what comes off, then what is in doubt, then what is to be measured, then the rest. */
export const STANDING_RANK = `CASE WHEN s.measure_from <= CAST(:today AS date) OR s.word = 'measure-it' THEN 2
  WHEN s.change_on IS NOT NULL THEN 0 WHEN s.word = 'measure-again' THEN 1 ELSE 3 END`

/**
 * Among equals: what is to be measured by its chance of being over by now, the likeliest first; everything else by its day,
 * what was measured longest ago or is looked at soonest first.
 */
export const STANDING_ORDER = `CASE WHEN s.measure_from <= CAST(:today AS date) OR s.word = 'measure-it'
  THEN 1 - coalesce(${CHANCE}, 0.5) ELSE coalesce(s.change_on, s.check_on, CAST(:today AS date)) - DATE '2000-01-01' END`

/** Columns a standing is worked out from. A change earned by readings is one that no day turns into "measure it". */
export const STANDING_COLUMNS = `json_build_object('word', s.word, 'earned', s.measure_from IS NULL, 'decided', s.decision IS NOT NULL,
  'presentUntil', s.present_until, 'checkOn', s.check_on, 'outlook', CASE WHEN s.outlook_from IS NULL THEN NULL
    ELSE json_build_object('from', s.outlook_from, 'reached', s.outlook_reached) END)`

export interface StandingColumns {
  readonly word: VerdictWord
  readonly earned: boolean
  readonly decided: boolean
  readonly presentUntil: string | null
  readonly checkOn: string | null
  readonly outlook: { readonly from: string; readonly reached: readonly number[] } | null
}

/** Today in the shop's zone, and what a bike of it shows. */
export async function standingToday(
  work: Work,
): Promise<{ today: string; standing: (columns: StandingColumns) => Standing }> {
  const { assumed } = await assumptionsInForce(work)
  const today = dayIn(await shopZone(work), work.now)
  return { today, standing: (columns) => standingOf(columns, today, assumed) }
}
