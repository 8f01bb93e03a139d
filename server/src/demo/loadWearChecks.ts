import { itemsOf, wearItem, type ToothGrade, type WearItemId, type WearResult } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { Chance } from './random.ts'
import { WEAR_CHECKS, type WearCheckRow } from '../otherWear/models.ts'
import type { DriveRow } from '../parts/models.ts'

const DAY = 86_400_000
/** Of so many bikes one was looked over. */
const ONE_OF = 3
/** Days ago of the passes over a bike that was looked over. */
const PASSES = [210, 95, 20]
const MINIMUM_MM = 1.5

/** Loads what was seen of other parts: three passes over every third bike, rotors thinner each time. */
export async function loadWearChecks(
  { of, transaction, now }: Work,
  seed: number,
  drives: readonly DriveRow[],
  peopleIds: readonly string[],
): Promise<void> {
  const chance = new Chance(seed)
  const rows: WearCheckRow[] = []
  for (const { bikeId, type, discBrake } of drives.filter((_, i) => i % ONE_OF === ONE_OF - 1)) {
    const wears = chance.between(0.03, 0.12)
    for (const [pass, daysAgo] of PASSES.entries()) {
      const at = new Date(now.getTime() - daysAgo * DAY - chance.whole(0, 7) * 3_600_000)
      for (const item of itemsOf({ type, discBrake: discBrake ?? false }))
        rows.push({
          id: chance.id(at),
          bikeId,
          item,
          ...seenThen(chance, item, pass, wears),
          renewed: false,
          note: null,
          occurredAt: at,
          recordedAt: at,
          personId: peopleIds[pass % peopleIds.length]!,
          deviceId: null,
          supersedesId: null,
          reason: null,
          deleted: false,
        })
    }
  }
  await of(WEAR_CHECKS).bulkCreate(rows, { transaction })
}

type Seen = Pick<WearCheckRow, 'grade' | 'result' | 'typed' | 'mm' | 'minimumMm' | 'u'>
const NOTHING: Seen = { grade: null, result: null, typed: null, mm: null, minimumMm: null, u: null }
const GRADES: readonly ToothGrade[] = ['as-new', 'used', 'used', 'worn']
const RESULTS: readonly WearResult[] = ['good', 'good', 'good', 'watch']

function seenThen(chance: Chance, item: WearItemId, pass: number, wears: number): Seen {
  const { kind } = wearItem(item)
  // A pulley is crisp, then rounded: it has no shape between.
  if (item === 'pulleys') return { ...NOTHING, grade: pass + chance.whole(0, 1) > 2 ? 'worn' : 'as-new' }
  if (kind === 'teeth') return { ...NOTHING, grade: GRADES[Math.min(3, pass + chance.whole(0, 1))]! }
  if (kind === 'look') return { ...NOTHING, result: RESULTS[Math.min(3, pass + chance.whole(0, 1))]! }
  const mm = Math.round(100 * (1.8 - wears * (pass + 0.6) + chance.between(-0.015, 0.015))) / 100
  return { ...NOTHING, typed: mm.toFixed(2), mm, minimumMm: MINIMUM_MM, u: 0.02 }
}
