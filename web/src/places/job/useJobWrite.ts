import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ProblemError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'

/** Writes that begin or end a job; what stood in the way comes back as a sentence. */
export function useJobWrite(bikeId: string) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [wrong, setWrong] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const write = async (job: () => Promise<unknown>): Promise<void> => {
    setBusy(true)
    setWrong(null)
    try {
      await job()
    } catch (error) {
      setWrong(error instanceof ProblemError ? (error.problem.fields?.[0]?.detail ?? error.message) : t('app.offline'))
    } finally {
      await client.invalidateQueries({ queryKey: keys.bike(bikeId) })
      await client.invalidateQueries({ queryKey: keys.catalogue })
      await client.invalidateQueries({ queryKey: keys.lineUp })
      setBusy(false)
    }
  }
  return { wrong, setWrong, busy, write }
}
