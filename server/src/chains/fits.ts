import { bikeQuestion, judgeChain } from '@pelrin/core'
import type { Work } from '../db/work.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { partsFacts } from '../parts/bikeParts.ts'
import { catalogue } from '../parts/catalogueStore.ts'

/**
 * Tells which chains could go on a bike, by the same rules as new ones. A chain nobody knows the part of is left to whoever
 * holds it.
 */
export async function chainFits(work: Work, bikeId: string): Promise<(partId: string | null) => boolean> {
  const { assumed } = await assumptionsInForce(work)
  const { question } = bikeQuestion(
    await partsFacts(work, bikeId),
    { of: 'drive', joints: 'on', school: 'by-feel' },
    assumed,
  )
  const { chains } = (await catalogue(work)).catalogue
  return (partId) => {
    const model = partId === null ? undefined : chains.find(({ id }) => id === partId)
    // It has the length it has: what a box must hold concerns new ones only.
    return !model || judgeChain({ ...question.wants, pitches: null }, model).outcome !== 'does-not-fit'
  }
}
