import { v7 } from 'uuid'
import { SHIPPED_RULES } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { PEOPLE, SHOPS } from '../auth/models.ts'
import { INSTRUMENTS, INSTRUMENT_VERSIONS } from '../instruments/models.ts'
import { HOUSE_RULES, HOUSE_RULE_VERSIONS } from '../limits/models.ts'

/** Every school there is, the first of them the shop's; "as marked" has no limits of its own: the change mark of whichever instrument is named. */
const SCHOOLS_AT_FIRST = [...SHIPPED_RULES, { ...SHIPPED_RULES[0], school: 'as-marked' as const }]

/**
 * Makes a shop to begin with: an owner whom only a link lets in, a rule to measure with, the shipped schools. All or nothing with the
 * transaction: a start that is interrupted leaves no shop without people.
 *
 * @param timeZone of the machine, until the shop says otherwise
 * @returns the owner
 */
export async function makeBornShop(
  { of, transaction, now, shopId }: Work,
  timeZone: string,
): Promise<{ ownerId: string }> {
  await of(SHOPS).create(
    { id: shopId, code: 'workshop', name: 'My workshop', timeZone, distanceUnit: 'km', demo: false },
    { transaction },
  )
  const ownerId = v7()
  await of(PEOPLE).create(
    { id: ownerId, name: 'Owner', initials: 'O', signInName: 'owner', role: 'owner', active: true },
    { transaction },
  )
  for (const [i, { school, limits, watchShare }] of SCHOOLS_AT_FIRST.entries()) {
    const id = v7()
    await of(HOUSE_RULES).create({ id, school, isDefault: i === 0 }, { transaction })
    await of(HOUSE_RULE_VERSIONS).create(
      { id: v7(), houseRuleId: id, version: 1, limits, watchShare, validFrom: now },
      { transaction },
    )
  }
  const instrumentId = v7()
  await of(INSTRUMENTS).create({ id: instrumentId, kind: 'steel-rule', name: 'Steel rule' }, { transaction })
  await of(INSTRUMENT_VERSIONS).create(
    {
      ...{ id: v7(), instrumentId, version: 1, uMm: 0.25, bias: 0, biasU: 0 },
      ...{ validFrom: now, personId: ownerId, reason: 'taken into use' },
    },
    { transaction },
  )
  return { ownerId }
}

/** What a shop is born with, or says of itself and its walls on its first day, in the order it can be taken away again. */
const BORN_WITH = [
  'assumption_versions',
  'house_rule_versions',
  'house_rules',
  'instrument_versions',
  'instruments',
  'pots',
] as const

/** What is of who works here and at what, not of the work: it stays whatever comes in. */
const OF_PEOPLE = [
  ...['people', 'devices', 'device_people', 'sign_in_tries', 'audit', 'idempotency_keys', 'state_rebuilds'],
  ...['message_cursors', 'forecast_runs', 'staged_rides', 'calendar_feeds'],
]

/** Whether a shop has only what it was born with: nothing was written into it that an archive could be in the way of. */
export async function isAsBorn(work: Work): Promise<boolean> {
  const tables = await work.select<{ name: string }>(
    `SELECT c.relname AS name FROM pg_class c WHERE c.relkind = 'r' AND c.relnamespace = 'public'::regnamespace AND c.relrowsecurity`,
  )
  for (const { name } of tables) {
    if (OF_PEOPLE.includes(name) || (BORN_WITH as readonly string[]).includes(name)) continue
    const [row] = await work.select<{ there: boolean }>(`SELECT EXISTS (SELECT 1 FROM ${name}) AS there`)
    if (row?.there === true) return false
  }
  return true
}

/** Takes away what a shop was born with, for what comes in its place. */
export async function clearBornWith(work: Work): Promise<void> {
  for (const name of BORN_WITH) await work.execute(`DELETE FROM ${name}`)
}
