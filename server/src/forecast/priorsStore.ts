import { shippedPrior, type Assumptions, type CareKind, type Surface, type WearPrior } from '@pelrin/core'
import type { LearnedGroup } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

export interface PriorVersion {
  readonly version: number
  readonly learnedAt: Date
  readonly person: string
  readonly groups: readonly LearnedGroup[]
  readonly undoneAt: Date | null
}

/** Every learning there was, newest first. */
export const priorVersions = (work: Work): Promise<PriorVersion[]> =>
  work.select<PriorVersion>(
    `SELECT v.version, v.learned_at AS "learnedAt", p.name AS person, v.groups, v.undone_at AS "undoneAt"
     FROM prior_versions v JOIN people p ON p.id = v.person_id ORDER BY v.version DESC`,
  )

/** What is believed of chains before they are read. */
export interface PriorsInForce {
  /** 0: the shipped values, nothing learned. */
  readonly version: number
  /** The prior of a care on its usual surface: learned of both, else of the care, else shipped. */
  priorFor(care: CareKind, surface: Surface | null, defaults: Assumptions['forecast']): WearPrior
}

export async function priorsInForce(work: Work): Promise<PriorsInForce> {
  const newest = (await priorVersions(work)).find(({ undoneAt }) => undoneAt === null)
  return {
    version: newest?.version ?? 0,
    priorFor(care, surface, defaults) {
      const shipped = shippedPrior(care, defaults)
      const groups = newest?.groups.filter((group) => group.care === care && group.adopted) ?? []
      const learned =
        groups.find((group) => group.surface === surface && surface !== null) ??
        groups.find((group) => group.surface === null)
      return learned ? { ...shipped, life: learned.life, lifeSd: learned.lifeSd } : shipped
    },
  }
}
