import { SHIPPED_SCHOOLS, type JobSchools } from '@pelrin/core'
import type { HouseSchools } from '@pelrin/contract'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'

/** By which schools this shop's jobs are done: its own, else those shipped as version 0. */
export async function houseSchools(work: Work): Promise<HouseSchools> {
  const [own] = await work.select<HouseSchools>(
    'SELECT version, schools FROM job_schools ORDER BY version DESC LIMIT 1',
  )
  return own ?? { version: 0, schools: SHIPPED_SCHOOLS }
}

/** Says by which schools jobs are done from now on. @throws ProblemError 412 with the newer */
export async function changeHouseSchools(work: Work, version: number, schools: JobSchools): Promise<HouseSchools> {
  const [written] = await work.select<HouseSchools>(
    `INSERT INTO job_schools (version, schools, person_id)
     SELECT :version, CAST(:schools AS jsonb), :personId
     WHERE coalesce((SELECT max(version) FROM job_schools), 0) = :before
     ON CONFLICT DO NOTHING RETURNING version, schools`,
    { version: version + 1, before: version, schools: JSON.stringify(schools), personId: authorOf(work).personId },
  )
  if (!written) throw new ProblemError(412, 'version-stale', { current: await houseSchools(work) })
  const { shopId } = work
  await audited(work, 'changed', 'job-schools', shopId, schools)
  return written
}
