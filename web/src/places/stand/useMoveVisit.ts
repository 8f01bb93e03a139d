import { useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type Visit } from '@pelrin/contract'
import { ask, ProblemError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { problemText } from '../../messages/said.ts'

/** Moves visits in the line-up. What somebody else moved meanwhile is shown, not overwritten. */
export function useMoveVisit() {
  const client = useQueryClient()
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  return useMemo(() => {
    const send = async (visit: Visit, body: { before?: string | null; state?: 'waiting' | 'done' }): Promise<void> => {
      try {
        const lineUp = await ask(endpoints.moveVisit, { params: { id: visit.id }, version: visit.version, body })
        await showAnswer(client, keys.lineUp, lineUp)
      } catch (error) {
        const problem = error instanceof ProblemError ? error.problem : null
        if (problem?.status === 412) await showAnswer(client, keys.lineUp, problem.current)
        tell(problemText(t, problem?.code ?? 'database-away'))
      }
    }
    return {
      before: (visit: Visit, before: Visit | null) => void send(visit, { before: before?.id ?? null }),
      by: (visits: readonly Visit[], visit: Visit, by: 1 | -1) => {
        const at = visits.indexOf(visit)
        const target = at + by
        if (target < 0 || target >= visits.length) return
        void send(visit, { before: visits[by < 0 ? target : target + 1]?.id ?? null })
      },
      done: (visit: Visit) => void send(visit, { state: visit.state === 'done' ? 'waiting' : 'done' }),
    }
  }, [client, t, tell])
}
