import { gradesOf, parseThickness, SLOT_RESULTS, wearItem, type Assumptions } from '@pelrin/core'
import type { endpoints } from '@pelrin/contract'
import type { FittedPart, OtherWear, Output, TakeWearCheck } from '@pelrin/contract'
import { v7 } from 'uuid'
import { fitComponent, unfitFor } from '../components/service.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { minimumOf, otherWearOf } from './store.ts'
import { newFact, withdraw } from '../db/facts.ts'
import { BIKES } from '../bikes/models.ts'
import { WEAR_CHECKS, type WearCheckRow } from './models.ts'

/**
 * Writes down what one pass over a bike saw.
 *
 * @throws ProblemError 422 at the item's field for what does not go with it, such as a rotor without a thickness
 */
export async function checkWear(
  work: Work,
  bikeId: string,
  { occurredAt, checks }: Output<typeof endpoints.checkWear.body>,
): Promise<OtherWear> {
  const { of, transaction } = work
  if (!(await of(BIKES).findByPk(bikeId, { transaction }))) throw new ProblemError(404, 'bike-unknown')
  await lockBikeState(work, bikeId)
  const { assumed } = await assumptionsInForce(work)
  // What is sent late happened when it happened, never after now.
  const at = new Date(Math.min(work.now.getTime(), Date.parse(occurredAt)))
  for (const [i, check] of checks.entries()) {
    if (checks.findIndex(({ item }) => item === check.item) !== i) throw refuseField(`checks.${i}.item`, 'check-twice')
    await of(WEAR_CHECKS).create(
      {
        id: check.id,
        bikeId,
        item: check.item,
        ...(await seen(work, bikeId, check, `checks.${i}`, assumed)),
        renewed: check.renewed,
        note: check.note,
        occurredAt: at,
        ...newFact(work),
      },
      { transaction },
    )
    // A new one is a thing with a life of its own, which begins with this look.
    if (check.renewed)
      await fitComponent(
        work,
        {
          id: v7(),
          bikeId,
          item: check.item,
          ...(check.fitted ?? UNSAID),
          endReason: 'worn',
          at,
          becauseId: check.id,
        },
        `checks.${i}.fitted`,
      )
  }
  await refreshBikeState(work, bikeId)
  await audited(work, 'checked', 'bike', bikeId, { items: checks.map(({ item }) => item) })
  return otherWearOf(work, bikeId)
}

/** A new one of which nobody says what it is. */
const UNSAID: FittedPart = { partId: null, name: null, price: null }

type Seen = Pick<WearCheckRow, 'grade' | 'result' | 'typed' | 'mm' | 'minimumMm' | 'u'>
const NOTHING: Seen = { grade: null, result: null, typed: null, mm: null, minimumMm: null, u: null }

async function seen(
  work: Work,
  bikeId: string,
  { item, grade, result, typed, minimumTyped }: TakeWearCheck,
  path: string,
  assumed: Assumptions,
): Promise<Seen> {
  const { kind } = wearItem(item)
  if (kind === 'teeth') {
    if (grade === null || !gradesOf(item).includes(grade)) throw refuseField(`${path}.grade`, 'grade-missing')
    return { ...NOTHING, grade }
  }
  if (kind === 'look') {
    if (result === null) throw refuseField(`${path}.result`, 'result-missing')
    return { ...NOTHING, result }
  }
  // A slot gauge says yes or no: a thickness beside it says more, and counts.
  if (typed === null && SLOT_RESULTS.some((one) => one === result)) return { ...NOTHING, result }
  if (typed === null) throw refuseField(`${path}.typed`, 'thickness-missing')
  const minimumMm =
    minimumTyped === null ? await minimumOf(work, bikeId, item) : thickness(minimumTyped, `${path}.minimumTyped`)
  if (minimumMm === null) throw refuseField(`${path}.minimumTyped`, 'minimum-missing')
  return { ...NOTHING, typed, mm: thickness(typed, `${path}.typed`), minimumMm, u: assumed.otherWear.rotorUMm }
}

/** A thickness as it was typed, mm. */
function thickness(typed: string, path: string): number {
  const read = parseThickness(typed)
  if (!read.ok) throw refuseField(path, read.problem)
  return read.mm
}

/** Takes a look back: it stays readable in the audit, and stands no more. */
export async function withdrawWearCheck(
  work: Work,
  checkId: string,
  { id, reason }: Output<typeof endpoints.withdrawWearCheck.body>,
): Promise<OtherWear> {
  const gone = { unknown: 'check-unknown', already: 'check-gone' } as const
  const check = await withdraw(work, WEAR_CHECKS, checkId, { id, reason }, gone)
  await lockBikeState(work, check.bikeId)
  await unfitFor(work, checkId, reason)
  await refreshBikeState(work, check.bikeId)
  await audited(work, 'withdrew', 'wear-check', checkId, { reason })
  return otherWearOf(work, check.bikeId)
}
