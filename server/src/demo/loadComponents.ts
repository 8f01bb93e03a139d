import { KIND_OF_ITEM, itemsOf, type ComponentEnd, type WearItemId } from '@pelrin/core'
import type { PartRow } from '../catalogue/models.ts'
import { COMPONENTS } from '../components/models.ts'
import type { Work } from '../db/work.ts'
import type { DriveRow } from '../parts/models.ts'
import { Chance } from './random.ts'

const DAY = 86_400_000
/** Of so many bikes one had other parts fitted here. */
const ONE_OF = 6
/** What was fitted, how long ago, days, and what became of the one before, from the first to the last. */
const STORIES: readonly { item: WearItemId; daysAgo: readonly number[] }[] = [
  { item: 'pads-rear', daysAgo: [520, 190] },
  { item: 'pads-front', daysAgo: [310] },
  { item: 'rotor-rear', daysAgo: [400] },
  { item: 'pulleys', daysAgo: [260] },
  { item: 'cassette', daysAgo: [430] },
]

/** Loads parts that were fitted beside chains, each with its life: on, and off again where a newer one followed. */
export async function loadComponents(
  { of, transaction, now }: Work,
  seed: number,
  drives: readonly DriveRow[],
  parts: readonly PartRow[],
  peopleIds: readonly string[],
): Promise<void> {
  const chance = new Chance(seed)
  const rows = drives
    .filter((_, i) => i % ONE_OF === ONE_OF - 1)
    .flatMap(({ bikeId, type, discBrake, sprockets }, bike) => {
      const { item, daysAgo } = STORIES[bike % STORIES.length]!
      if (!itemsOf({ type, discBrake: discBrake ?? false }).includes(item)) return []
      const part = parts.find(
        ({ kind, facts }) =>
          kind === KIND_OF_ITEM[item] &&
          (kind !== 'cassette' ||
            JSON.stringify((facts as { sprockets?: readonly number[] }).sprockets) === JSON.stringify(sprockets)),
      )
      if (!part) return []
      const fitted = daysAgo.map((ago) => new Date(now.getTime() - ago * DAY - chance.whole(0, 7) * 3_600_000))
      return fitted.map((at, i) => {
        const until = fitted[i + 1] ?? null
        return {
          id: chance.id(at),
          bikeId,
          item,
          partId: part.id,
          name: null,
          price: part.price,
          during: [
            { value: at, inclusive: true },
            { value: until, inclusive: false },
          ],
          endReason: until === null ? null : ('worn' satisfies ComponentEnd),
          fromStock: false,
          becauseId: null,
          personId: peopleIds[i % peopleIds.length]!,
          deviceId: null,
          recordedAt: at,
        }
      })
    })
  await of(COMPONENTS).bulkCreate(rows as never, { transaction })
}
