import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useMemo, useState } from 'react'
import type { TFunction } from 'i18next'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { jobNow, type JobEntry, type JobEvent, type JobNow } from '@pelrin/core'
import { endpoints, type Job } from '@pelrin/contract'
import { ask, AwayError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { clock } from '../../messages/format.ts'
import { outbox } from '../../outbox/outbox.ts'
import { useOutbox } from '../../outbox/useOutbox.ts'
import { saidWith } from '../../messages/said.ts'

/** What a person does on a job, before it has its id and time. */
export type Said =
  | { readonly kind: 'tick' | 'untick'; readonly step: JobNow['steps'][number]['id'] }
  | { readonly kind: 'entered'; readonly step: JobNow['steps'][number]['id']; readonly entry: JobEntry }
  | { readonly kind: 'left-out'; readonly step: JobNow['steps'][number]['id']; readonly why: string }
  | { readonly kind: 'outcome' | 'outcome-back'; readonly outcome: JobNow['plan']['outcomes'][number] }
  | { readonly kind: 'choice'; readonly choice: Extract<JobEvent, { kind: 'choice' }>['choice'] }
  | { readonly kind: 'note'; readonly text: string }
  | { readonly kind: 'take-over' | 'pause' | 'resume' }

/** What was said, on its way. */
type Unsent = Said & { readonly id: string; readonly occurredAt: string }

/** Another tablet at this bike shows what was done here within a second. */
const AGAIN_MS = 900

/** Ends a job one way or another, once everything said on it has arrived: an ended one takes no more. @throws AwayError */
export async function afterOutbox<T>(write: () => Promise<T>): Promise<T> {
  if (!(await outbox.sendNow())) throw new AwayError()
  return write()
}

/** The job on a bike, asked again while it is open. */
export const useBikeJob = (bikeId: string) =>
  useQuery({
    queryKey: keys.job(bikeId),
    queryFn: ({ signal }) => ask(endpoints.bikeJob, { params: { id: bikeId }, signal }),
    refetchInterval: ({ state }) => (state.data?.job?.state === 'open' ? AGAIN_MS : false),
    staleTime: 0,
  })

/**
 * A job as it stands, with what is still on its way to the server, and a way to say what happens on it. What is said goes
 * through the outbox: no connection, no reload and no dead battery loses it.
 *
 * @param bike whose it is and which, for whoever looks at what waits
 */
export function useJobNow(
  job: Job,
  bike: string,
): {
  now: JobNow
  /** Everything that happened, with what is still on its way. */
  events: readonly JobEvent[]
  waiting: number
  say: (said: Said) => void
} {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const client = useQueryClient()
  const all = useOutbox()
  const pending = useMemo(
    () =>
      all.filter(
        ({ path, params, refused }) =>
          path === endpoints.jobEvent.path && params['id'] === job.id && refused === undefined,
      ),
    [all, job.id],
  )
  // Counts from the key press on: who ticks quickly does not wait for the device to have written it down.
  const [own, setOwn] = useState<readonly Unsent[]>([])
  const events = useMemo(() => {
    const known = new Map<string, unknown>(job.events.map((event) => [event.id, event]))
    for (const { occurredAt, ...said } of [...pending.map(({ body }) => body as Unsent), ...own])
      if (!known.has(said.id)) known.set(said.id, { ...said, at: Date.parse(occurredAt), by: session.person.initials })
    return [...known.values()] as JobEvent[]
  }, [job, pending, own, session.person.initials])
  const now = useMemo(() => jobNow(job.plan, events), [job.plan, events])
  const { id, bikeId } = job
  const say = useCallback(
    (said: Said): void => {
      const at = new Date().toISOString()
      const body: Unsent = { id: v7(), occurredAt: at, ...said }
      setOwn((before) => [...before, body])
      void outbox
        .put({
          key: v7(),
          method: endpoints.jobEvent.method,
          path: endpoints.jobEvent.path,
          params: { id },
          body,
          personId: session.person.id,
          at,
          title: t('outbox.job', { bike, what: whatOf(said, now, t), time: clock(at) }),
          bikeId,
        })
        .then(({ settled }) => settled)
        .then((end) => {
          if (end.ok) {
            // It stays among what was said here: an answer that was asked for before it may still be on its way.
            void showAnswer(client, keys.job(bikeId), { job: end.result, estimate: null })
            return
          }
          setOwn((before) => before.filter((one) => one !== body))
          void client.invalidateQueries({ queryKey: keys.job(bikeId) })
        })
    },
    [id, bikeId, bike, now, client, session.person.id, t],
  )
  return { now, events, waiting: pending.length, say }
}

/** What was said, in words: which step, where it was one. */
function whatOf(said: Said, now: JobNow, t: TFunction): string {
  const step = 'step' in said ? now.steps.find(({ id }) => id === said.step) : undefined
  if (!step) return t(`outbox.said.${said.kind}`)
  const words = { ...step.values, position: t(`jobs.position.${now.plan.position}`) }
  return t(said.kind === 'untick' ? 'outbox.unstep' : 'outbox.step', {
    step: saidWith(t, `steps.${step.id}.what`, words),
  })
}
