import { isDeepStrictEqual } from 'node:util'
import { ASSUMPTIONS, minutesAfter } from '@pelrin/core'
import type { endpoints, Output, Shop } from '@pelrin/contract'
import { held } from '../db/facts.ts'
import { brokenBy } from '../db/refused.ts'
import { audited, type Work } from '../db/work.ts'
import { refuseField } from '../problems/problem.ts'
import { asShop } from '../sessions/describe.ts'
import { askForRebuild } from '../state/rebuild.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { writeChange } from '../limits/changes.ts'
import { SHOPS, type ShopRow } from '../auth/models.ts'

/** No weekday takes more, minutes: as the house rules have it. */
const MOST_MINUTES = ASSUMPTIONS.find(({ key }) => key === 'diary.minutes1')!.highest

/** The shop's own row, held until the transaction ends. Not for update: whoever wrote any row of the shop holds its key already. */
export async function lockedShop(work: Work): Promise<ShopRow> {
  const { transaction } = work
  return (await work.of(SHOPS).findByPk(work.shopId, { transaction, lock: transaction.LOCK.NO_KEY_UPDATE }))!
}

/** What the shop says of itself. */
export async function shopShown(work: Work): Promise<Shop> {
  return asShop((await work.of(SHOPS).findByPk(work.shopId, { transaction: work.transaction }))!)
}

/**
 * Changes what the shop says of itself. What follows from its days is worked out anew where the zone is another.
 *
 * @param rebuild what goes through the shop's bikes once this is written
 * @throws ProblemError 412 with the newer row, 422 where another shop of this server has the short name
 */
export async function changeShop(
  work: Work,
  version: number,
  change: Output<typeof endpoints.changeShop.body>,
  rebuild: () => void,
): Promise<Shop> {
  const row = await lockedShop(work)
  const before = asShop(row)
  await held(row, version, () => before)
  await writeShop(work, row, change)
  await followHours(work, before, { ...before, ...change })
  await audited(work, 'changed', 'shop', work.shopId, { before: changedOf(before, change), change })
  if (change.timeZone !== undefined && change.timeZone !== before.timeZone) {
    await askForRebuild(work)
    work.transaction.afterCommit(rebuild)
  }
  return shopShown(work)
}

/** What a day takes of work follows when the shop is open, and at how many stands. */
async function followHours(work: Work, before: Shop, after: Shop): Promise<void> {
  if (before.stands === after.stands && isDeepStrictEqual(before.opening, after.opening)) return
  const { version, overrides, assumed } = await assumptionsInForce(work)
  const days = [1, 2, 3, 4, 5, 6, 7] as const
  const minutes = days.map((day) => assumed.diary[`minutes${day}`])
  const taken = minutesAfter(before, after, minutes, MOST_MINUTES)
  await writeChange(
    work,
    { kind: 'assumptions', fromVersion: version, overrides: { ...overrides, ...taken } },
    'opening hours or stands changed',
  )
}

/** Writes it, at the next version. @throws ProblemError 422 where another shop of this server has the short name */
export async function writeShop(
  work: Work,
  { version }: { readonly version: number },
  change: Output<typeof endpoints.changeShop.body>,
  more: Partial<ShopRow> = {},
): Promise<void> {
  try {
    await work
      .of(SHOPS)
      .update(
        { ...change, ...more, version: version + 1 },
        { where: { id: work.shopId }, transaction: work.transaction },
      )
  } catch (error) {
    if (brokenBy(error)?.rule === 'unique') throw refuseField('code', 'shop-code-taken')
    throw error
  }
}

const changedOf = (before: Shop, change: object): object =>
  Object.fromEntries(Object.keys(change).map((name) => [name, before[name as keyof Shop]]))
