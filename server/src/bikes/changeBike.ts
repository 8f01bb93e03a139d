import type { BikeDetails, ChangeBike } from '@pelrin/contract'
import type * as v from 'valibot'
import { brokenBy } from '../db/refused.ts'
import { audited, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState, refreshBikeState } from '../state/bikeState.ts'
import { held } from '../db/facts.ts'
import { BIKES } from './models.ts'

/**
 * Changes what a bike is called, what it is, its tag, frame mark or notes.
 *
 * @param version the version the change started from
 * @throws ProblemError 412 with the newer row when somebody was faster, 422 when the tag is another bike's
 */
export async function changeBike(
  work: Work,
  id: string,
  version: number,
  change: ChangeBike,
): Promise<v.InferOutput<typeof BikeDetails>> {
  await lockBikeState(work, id)
  const bike = await work.of(BIKES).findByPk(id, { transaction: work.transaction })
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  const shown = (): v.InferOutput<typeof BikeDetails> => ({
    id,
    version: bike.version,
    label: bike.label,
    tag: bike.tag,
    frameMark: bike.frameMark,
    notes: bike.notes,
    kind: bike.kind,
    maker: bike.maker,
    model: bike.model,
    weightKg: bike.weightKg,
    goneOn: bike.goneOn,
  })
  const before = shown()
  await held(bike, version, () => before)
  try {
    await bike.update({ ...change, version: version + 1 }, { transaction: work.transaction })
  } catch (error) {
    if (brokenBy(error)?.rule === 'unique') throw refuseField('tag', 'tag-taken')
    throw error
  }
  await refreshBikeState(work, id)
  await audited(work, 'changed', 'bike', id, { before, change })
  return shown()
}
