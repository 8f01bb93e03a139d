import { DEFAULTS, isWaxed, TREATMENTS, type Cleaning, type Treatment } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { Chance } from './random.ts'
import { CARE_EVENTS, type CareEventRow } from '../care/models.ts'
import type { ChainRow, FittingRow } from '../chains/models.ts'

const DAY = 86_400_000
/** No treatments further back are told of. */
const BACK_DAYS = 400
/** What a kilometre uses up on the island, against a dry one. */
const USUAL_FACTOR = 1.4
/** How often a chain's owner told of a treatment at home, and how often the bike came in washed or squeaking. */
const AT_HOME = 0.25
const WASHED = 0.05
const SQUEAKS = 0.04

/** Loads what chains were treated with: as often as their care asks, some late, the last some time ago. */
export async function loadCare(
  { of, transaction, now }: Work,
  seed: number,
  chains: readonly Partial<ChainRow>[],
  fittings: readonly Partial<FittingRow>[],
  kmPerDay: ReadonlyMap<string, number>,
  peopleIds: readonly string[],
): Promise<void> {
  const chance = new Chance(seed)
  const careOf = new Map(chains.map(({ id, care }) => [id, care]))
  const rows: CareEventRow[] = []
  for (const { chainId, bikeId, during } of fittings) {
    const care = TREATMENTS.find((one) => one === careOf.get(chainId))
    if (!care) continue
    const from = during![0].value.getTime()
    const to = during![1].value?.getTime() ?? null
    const { km, days } = DEFAULTS.care[care]
    const every = Math.min(days, km / (USUAL_FACTOR * (kmPerDay.get(bikeId!) ?? 1))) * DAY
    const write = (at: number, kind: CareEventRow['kind']): void => {
      const moment = new Date(at)
      rows.push({
        id: chance.id(moment),
        chainId: chainId!,
        bikeId: bikeId!,
        kind,
        care: kind === 'treated' ? care : null,
        cleaning: kind === 'treated' ? cleanedBy(chance, care) : null,
        atHome: kind === 'treated' && chance.unit() < AT_HOME,
        note: null,
        occurredAt: moment,
        recordedAt: moment,
        personId: peopleIds[chance.whole(0, peopleIds.length - 1)]!,
        deviceId: null,
        supersedesId: null,
        reason: null,
        deleted: false,
      })
    }
    // The last lies up to a good interval back, so that some are due, some nearly, most not.
    let at = (to ?? now.getTime()) - chance.between(0.02, 1.15) * every
    const lot = chance.unit()
    if (to === null && lot < WASHED + SQUEAKS)
      write(now.getTime() - chance.between(0.05, 0.3) * DAY, lot < WASHED ? 'wash' : 'squeak')
    while (at > Math.max(from, now.getTime() - BACK_DAYS * DAY)) {
      write(at, 'treated')
      at -= chance.between(0.5, 1) * every
    }
    if (isWaxed(care) || (to ?? now.getTime()) - from > every) write(from, 'treated')
  }
  await of(CARE_EVENTS).bulkCreate(
    rows.filter(({ kind, occurredAt }) => kind !== 'treated' || occurredAt <= now),
    { transaction },
  )
}

const cleanedBy = (chance: Chance, care: Treatment): Cleaning =>
  chance.pick(isWaxed(care) ? (['wipe', 'wipe', 'boil'] as const) : (['wipe', 'wipe', 'on-bike', 'soak'] as const))
