import { assumptionsWith, type AssumptionOverrides, type Assumptions } from '@pelrin/core'
import type { Work } from '../db/work.ts'

export interface AssumptionsInForce {
  /** 0: the shipped values, nothing changed yet. */
  readonly version: number
  readonly overrides: AssumptionOverrides
  readonly assumed: Assumptions
}

/** What the shop assumes: the shipped values with its own in their places. */
export async function assumptionsInForce(work: Work): Promise<AssumptionsInForce> {
  const [newest] = await work.select<{ version: number; overrides: AssumptionOverrides }>(
    'SELECT version, overrides FROM assumption_versions ORDER BY version DESC LIMIT 1',
  )
  const { version = 0, overrides = {} } = newest ?? {}
  return { version, overrides, assumed: assumptionsWith(overrides) }
}

export interface AssumptionVersion {
  readonly version: number
  readonly overrides: AssumptionOverrides
  readonly validFrom: Date
  readonly person: string
  readonly reason: string
}

export const assumptionVersions = (work: Work): Promise<AssumptionVersion[]> =>
  work.select<AssumptionVersion>(
    `SELECT a.version, a.overrides, a.valid_from AS "validFrom", p.name AS person, a.reason
     FROM assumption_versions a JOIN people p ON p.id = a.person_id ORDER BY a.version DESC`,
  )

/** What was assumed at a moment, from every version newest first: numbers of that day are explained by them. */
export function assumedAt(versions: readonly AssumptionVersion[], at: Date): Assumptions {
  return assumptionsWith(versions.find(({ validFrom }) => validFrom <= at)?.overrides ?? {})
}
