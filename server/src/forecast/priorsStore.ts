import type { Assumptions, CareKind, Surface, WearPrior } from '@pelrin/core'
import type { LearnedGroup, LearnedUnsaid } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { believedOf } from './believed.ts'

export interface PriorVersion {
  readonly version: number
  readonly learnedAt: Date
  readonly person: string
  readonly groups: readonly LearnedGroup[]
  readonly unsaid: LearnedUnsaid | null
  readonly undoneAt: Date | null
}

/** Every learning there was, newest first. */
export const priorVersions = (work: Work): Promise<PriorVersion[]> =>
  work.select<PriorVersion>(
    `SELECT v.version, v.learned_at AS "learnedAt", p.name AS person, v.groups, v.unsaid, v.undone_at AS "undoneAt"
     FROM prior_versions v JOIN people p ON p.id = v.person_id ORDER BY v.version DESC`,
  )

/** What is believed of chains before they are read. */
export interface PriorsInForce {
  /** 0: the shipped values, nothing learned. */
  readonly version: number
  /**
   * The prior of a care on its usual surface: learned of both, else of the care, else shipped. Where nobody says a surface (null),
   * its kilometres wear by what was learned of such bikes: more wear a kilometre is less life.
   */
  priorFor(care: CareKind, surface: Surface | null, defaults: Assumptions['forecast']): WearPrior
}

export async function priorsInForce(work: Work): Promise<PriorsInForce> {
  const newest = (await priorVersions(work)).find(({ undoneAt }) => undoneAt === null)
  return {
    version: newest?.version ?? 0,
    priorFor(care, surface, defaults) {
      const believed = believedOf(care, surface, newest?.groups ?? [], defaults)
      const factor = surface === null && newest?.unsaid?.adopted ? newest.unsaid.factor : 1
      return { ...believed, life: believed.life / factor }
    },
  }
}
