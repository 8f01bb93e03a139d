import { jobCost } from '@pelrin/core'
import type { JobBill } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { PARTS } from '../catalogue/models.ts'

/** A job's bill: its minutes at the shop's hour, and its parts at the catalogue's prices of now. */
export async function billOf(
  work: Work,
  minutes: number,
  used: readonly { readonly partId: string; readonly quantity: number }[],
): Promise<JobBill> {
  const { assumed } = await assumptionsInForce(work)
  const rows = await work.of(PARTS).findAll({
    where: { id: used.map(({ partId }) => partId) },
    transaction: work.transaction,
  })
  const parts = used.map(({ partId, quantity }) => {
    const part = rows.find(({ id }) => id === partId)
    return { name: part ? `${part.maker} ${part.name}` : '', quantity, price: part?.price ?? null }
  })
  const { labour, parts: partsCost, total } = jobCost({ minutes, hourPrice: assumed.jobs.hourPrice * 100, parts })
  return { minutes, parts, labour, partsCost, total }
}
