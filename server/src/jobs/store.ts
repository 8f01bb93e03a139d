import type { Job, JobEvent } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { dayIn } from '../days/days.ts'
import type { JobRow } from './models.ts'

type Head = Omit<JobRow, 'personId' | 'keptId'> & { by: string; keptId: string | null; timeZone: string }

const HEADS = `SELECT j.id, j.bike_id AS "bikeId", j.state, j.plan, j.parts, j.kept_id AS "keptId", j.opened_at AS "openedAt",
  j.closed_at AS "closedAt", j.written, j.version, p.initials AS by, s.time_zone AS "timeZone"
  FROM jobs j JOIN people p ON p.id = j.person_id JOIN shops s ON s.id = j.shop_id`

/** Everything that happened on a job, in its order. */
export async function eventsOf(work: Work, jobId: string): Promise<JobEvent[]> {
  const rows = await work.select<{ id: string; kind: string; detail: object; at: Date; by: string }>(
    `SELECT e.id, e.kind, e.detail, e.occurred_at AS at, p.initials AS by FROM job_events e JOIN people p ON p.id = e.person_id
     WHERE e.job_id = :jobId ORDER BY e.occurred_at, e.id`,
    { jobId },
  )
  return rows.map(({ id, kind, detail, at, by }) => ({ id, kind, ...detail, at: at.getTime(), by }) as JobEvent)
}

async function asJob(work: Work, { keptId: _, timeZone, ...head }: Head): Promise<Job> {
  const { openedAt, closedAt, state } = head
  return {
    ...head,
    openedAt: openedAt.toISOString(),
    closedAt: closedAt?.toISOString() ?? null,
    events: await eventsOf(work, head.id),
    canUndo: state === 'closed' && closedAt !== null && dayIn(timeZone, closedAt) === dayIn(timeZone, work.now),
  }
}

export async function jobById(work: Work, id: string): Promise<Job | null> {
  const [head] = await work.select<Head>(`${HEADS} WHERE j.id = :id`, { id })
  return head ? asJob(work, head) : null
}

/** The open job of a bike, else its latest; null with none. */
export async function jobOfBike(work: Work, bikeId: string): Promise<Job | null> {
  const [head] = await work.select<Head>(
    `${HEADS} WHERE j.bike_id = :bikeId AND j.state <> 'undone'
     ORDER BY (j.state = 'open') DESC, j.opened_at DESC, j.id DESC LIMIT 1`,
    { bikeId },
  )
  return head ? asJob(work, head) : null
}
