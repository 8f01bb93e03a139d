import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'

/** Holds a bike that work is to be done on. @throws ProblemError 404 for none, 409 for one that was sold or left for good */
export async function lockPresentBike(work: Work, bikeId: string): Promise<void> {
  const [bike] = await work.select<{ goneOn: string | null }>(
    'SELECT gone_on::text AS "goneOn" FROM bikes WHERE id = :bikeId FOR NO KEY UPDATE',
    { bikeId },
  )
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  if (bike.goneOn !== null) throw new ProblemError(409, 'bike-gone')
}
