import {
  ASSUMPTIONS,
  assumptionProblem,
  DRIVE_CLASSES,
  limitsProblem,
  sprocketMarksProblem,
  type HouseRule,
} from '@pelrin/core'
import type { FieldProblem, RuleChange } from '@pelrin/contract'
import { v7 } from 'uuid'
import { audited, authorOf, type Work } from '../db/work.ts'
import { instrumentById } from '../instruments/store.ts'
import { atField, ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from './assumptionsStore.ts'
import { rulesInForce, type RuleInForce } from './houseRulesStore.ts'
import { BIKES, CUSTOMERS } from '../bikes/models.ts'
import { ASSUMPTION_VERSIONS, HOUSE_RULES, HOUSE_RULE_VERSIONS } from './models.ts'

/** Which bikes a change concerns, as a condition on `bikes b` joined with `customers c`. */
export interface Concerned {
  readonly where: string
  readonly values: Record<string, unknown>
}

const EVERY_BIKE: Concerned = { where: 'true', values: {} }

/**
 * Writes a change of rules or of what is assumed. Versions are only ever added, so that every verdict can be given
 * again under the version it was given by.
 *
 * @returns which bikes have to be judged anew
 */
export async function writeChange(work: Work, change: RuleChange, reason: string): Promise<Concerned> {
  // One at a time: two owners must not both write version 3. Not FOR UPDATE: whoever wrote any row of the shop holds its
  // key already, and two of them would wait for each other.
  await work.select('SELECT id FROM shops WHERE id = :id FOR NO KEY UPDATE', { id: work.shopId })
  switch (change.kind) {
    case 'rule':
      return writeRule(work, change, reason)
    case 'retire':
      return retireRule(work, change.ruleId, reason)
    case 'default':
      return chooseDefault(work, change, reason)
    case 'customer':
      return chooseForCustomer(work, change, reason)
    case 'rhythm':
      return chooseRhythm(work, change, reason)
    case 'bike':
      return chooseForBike(work, change, reason)
    case 'assumptions':
      return writeAssumptions(work, change, reason)
  }
}

async function writeRule(
  work: Work,
  change: Extract<RuleChange, { kind: 'rule' }>,
  reason: string,
): Promise<Concerned> {
  const { ruleId, fromVersion, name, watchShare, sprocketMarks = null } = change
  const limits = change.limits as HouseRule['limits']
  const wrong: FieldProblem[] = DRIVE_CLASSES.flatMap((driveClass) => {
    const found = limitsProblem(limits[driveClass])
    const marks = sprocketMarks && sprocketMarksProblem(sprocketMarks[driveClass])
    return [
      ...(found ? [atField(`change.limits.${driveClass}.${found.at}`, found.problem)] : []),
      ...(marks ? [atField(`change.sprocketMarks.${driveClass}.${marks.at}`, marks.problem)] : []),
    ]
  })
  const rules = await rulesInForce(work)
  const known = rules.find((rule) => rule.id === ruleId)
  const isOwn = known === undefined || known.school === 'custom'
  if (!isOwn && sprocketMarks !== null) wrong.push(atField('change.sprocketMarks', 'rule-shipped'))
  if (isOwn && name === null) wrong.push(atField('change.name', 'rule-name-missing'))
  if (isOwn && name !== null && rules.some((rule) => rule.id !== ruleId && !rule.retired && sameName(rule, name)))
    wrong.push(atField('change.name', 'rule-name-taken'))
  if (wrong.length > 0) throw new ProblemError(422, 'request-invalid', { fields: wrong })
  if ((known?.version ?? 0) !== fromVersion) throw new ProblemError(409, 'rule-stale', { current: known ?? null })
  const { of, transaction } = work
  if (!known) await of(HOUSE_RULES).create({ id: ruleId, school: 'custom', name, isDefault: false }, { transaction })
  else if (isOwn && name !== known.name) await of(HOUSE_RULES).update({ name }, { where: { id: ruleId }, transaction })
  await of(HOUSE_RULE_VERSIONS).create(
    {
      id: v7(),
      houseRuleId: ruleId,
      version: fromVersion + 1,
      limits,
      watchShare,
      sprocketMarks,
      validFrom: work.now,
      personId: authorOf(work).personId,
      reason,
    },
    { transaction },
  )
  await audited(work, known ? 'revised' : 'added', 'house rule', ruleId, { version: fromVersion + 1, reason })
  return judgedBy(ruleId)
}

const sameName = (rule: RuleInForce, name: string): boolean => rule.name?.toLowerCase() === name.toLowerCase()

/** Bikes whose state stands under any version of a rule. */
const judgedBy = (ruleId: string): Concerned => ({
  where: `EXISTS (SELECT 1 FROM bike_state s JOIN house_rule_versions w ON w.id = s.house_rule_version_id
    WHERE s.bike_id = b.id AND w.house_rule_id = :ruleId)`,
  values: { ruleId },
})

async function ruleStanding(work: Work, ruleId: string, path: string): Promise<RuleInForce> {
  const rule = (await rulesInForce(work)).find((one) => one.id === ruleId)
  if (!rule) throw refuseField(path, 'rule-unknown')
  if (rule.retired) throw refuseField(path, 'rule-retired')
  return rule
}

async function retireRule(work: Work, ruleId: string, reason: string): Promise<Concerned> {
  const rule = await ruleStanding(work, ruleId, 'change.ruleId')
  if (rule.isDefault) throw refuseField('change.ruleId', 'rule-is-default')
  if (rule.school !== 'custom') throw refuseField('change.ruleId', 'rule-shipped')
  await work.of(HOUSE_RULES).update({ retiredAt: work.now }, { where: { id: ruleId }, transaction: work.transaction })
  await audited(work, 'retired', 'house rule', ruleId, { reason })
  return judgedBy(ruleId)
}

async function chooseDefault(
  work: Work,
  { ruleId, markedInstrumentId = null }: Extract<RuleChange, { kind: 'default' }>,
  reason: string,
): Promise<Concerned> {
  const rule = await ruleStanding(work, ruleId, 'change.ruleId')
  if (rule.isDefault && rule.markedInstrumentId === markedInstrumentId)
    throw refuseField('change.ruleId', 'nothing-changed')
  await checkMark(work, rule, markedInstrumentId)
  const { of, transaction } = work
  await of(HOUSE_RULES).update({ isDefault: false }, { where: { isDefault: true }, transaction })
  await of(HOUSE_RULES).update({ isDefault: true, markedInstrumentId }, { where: { id: ruleId }, transaction })
  await audited(work, 'chose as the shop’s', 'house rule', ruleId, { reason })
  return EVERY_BIKE
}

async function chooseForCustomer(
  work: Work,
  { customerId, ruleId, markedInstrumentId = null }: Extract<RuleChange, { kind: 'customer' }>,
  reason: string,
): Promise<Concerned> {
  const { of, transaction } = work
  await checkMark(work, ruleId === null ? null : await ruleStanding(work, ruleId, 'change.ruleId'), markedInstrumentId)
  const customer = await of(CUSTOMERS).findByPk(customerId, { transaction })
  if (!customer) throw refuseField('change.customerId', 'customer-unknown')
  await customer.update({ houseRuleId: ruleId, markedInstrumentId, version: customer.version + 1 }, { transaction })
  await audited(work, 'chose a rule for', 'customer', customerId, { ruleId, markedInstrumentId, reason })
  return { where: 'b.customer_id = :customerId', values: { customerId } }
}

async function chooseRhythm(
  work: Work,
  { customerId, days, eachVisit }: Extract<RuleChange, { kind: 'rhythm' }>,
  reason: string,
): Promise<Concerned> {
  const { of, transaction } = work
  const customer = await of(CUSTOMERS).findByPk(customerId, { transaction })
  if (!customer) throw refuseField('change.customerId', 'customer-unknown')
  await customer.update({ rhythmDays: days, eachVisit, version: customer.version + 1 }, { transaction })
  await audited(work, 'chose a rhythm for', 'customer', customerId, { days, eachVisit, reason })
  return { where: 'b.customer_id = :customerId', values: { customerId } }
}

/** "As marked" needs an instrument whose mark decides. @throws ProblemError 422 at `change.markedInstrumentId` */
async function checkMark(work: Work, rule: RuleInForce | null, markedInstrumentId: string | null): Promise<void> {
  if (rule?.school === 'as-marked' && markedInstrumentId === null)
    throw refuseField('change.markedInstrumentId', 'instrument-needed')
  if (markedInstrumentId === null) return
  const instrument = await instrumentById(work, markedInstrumentId)
  if (instrument?.retiredAt !== null) throw refuseField('change.markedInstrumentId', 'instrument-unknown')
  if (instrument.changeMark === null) throw refuseField('change.markedInstrumentId', 'instrument-without-change-mark')
}

async function chooseForBike(
  work: Work,
  { bikeId, ruleId, markedInstrumentId }: Extract<RuleChange, { kind: 'bike' }>,
  reason: string,
): Promise<Concerned> {
  const { of, transaction } = work
  const rule = ruleId === null ? null : await ruleStanding(work, ruleId, 'change.ruleId')
  await checkMark(work, rule, markedInstrumentId)
  const bike = await of(BIKES).findByPk(bikeId, { transaction })
  if (!bike) throw refuseField('change.bikeId', 'bike-unknown')
  await bike.update({ houseRuleId: ruleId, markedInstrumentId, version: bike.version + 1 }, { transaction })
  await audited(work, 'chose a rule for', 'bike', bikeId, { ruleId, markedInstrumentId, reason })
  return { where: 'b.id = :bikeId', values: { bikeId } }
}

async function writeAssumptions(
  work: Work,
  { fromVersion, overrides }: Extract<RuleChange, { kind: 'assumptions' }>,
  reason: string,
): Promise<Concerned> {
  const wrong = Object.entries(overrides).flatMap(([key, to]) => {
    const problem = assumptionProblem(key, to)
    if (problem === null) return []
    const { lowest = 0, highest = 0 } = ASSUMPTIONS.find((one) => one.key === key) ?? {}
    return [atField(`change.overrides.${key}`, problem, { lowest, highest })]
  })
  if (wrong.length > 0) throw new ProblemError(422, 'request-invalid', { fields: wrong })
  const known = await assumptionsInForce(work)
  if (known.version !== fromVersion) throw new ProblemError(409, 'assumptions-stale', { current: known.overrides })
  const id = v7()
  await work.of(ASSUMPTION_VERSIONS).create(
    {
      id,
      version: fromVersion + 1,
      overrides,
      validFrom: work.now,
      personId: authorOf(work).personId,
      reason,
    },
    { transaction: work.transaction },
  )
  await audited(work, 'revised', 'assumptions', id, { version: fromVersion + 1, reason })
  return EVERY_BIKE
}
