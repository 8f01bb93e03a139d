import { SHIPPED_SCHOOLS, SHIPPED_WAX, type JobSchools, type WaxSchools } from '@pelrin/core'
import type { HouseSchools } from '@pelrin/contract'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'

/** As they are kept: how chains are waxed joined them later, and is not said in the older ones. */
interface Row {
  version: number
  schools: JobSchools & { waxing?: Partial<WaxSchools> }
}

const said = ({ version, schools: { waxing, ...schools } }: Row): HouseSchools => ({
  version,
  schools,
  waxing: { ...SHIPPED_WAX, ...waxing },
})

/** By which schools this shop's jobs are done and its chains are waxed: its own, else those shipped as version 0. */
export async function houseSchools(work: Work): Promise<HouseSchools> {
  const [own] = await work.select<Row>('SELECT version, schools FROM job_schools ORDER BY version DESC LIMIT 1')
  return own ? said(own) : { version: 0, schools: SHIPPED_SCHOOLS, waxing: SHIPPED_WAX }
}

/** Says by which schools work is done from now on; what is not said stays. @throws ProblemError 412 with the newer */
export async function changeHouseSchools(
  work: Work,
  version: number,
  { waxing, ...schools }: JobSchools & { waxing?: WaxSchools },
): Promise<HouseSchools> {
  const before = await houseSchools(work)
  const next = { ...schools, waxing: waxing ?? before.waxing }
  const [written] = await work.select<Row>(
    `INSERT INTO job_schools (version, schools, person_id)
     SELECT :version, CAST(:schools AS jsonb), :personId
     WHERE coalesce((SELECT max(version) FROM job_schools), 0) = :before
     ON CONFLICT DO NOTHING RETURNING version, schools`,
    { version: version + 1, before: version, schools: JSON.stringify(next), personId: authorOf(work).personId },
  )
  if (!written) throw new ProblemError(412, 'version-stale', { current: await houseSchools(work) })
  await audited(work, 'changed', 'job-schools', work.shopId, next)
  return said(written)
}
