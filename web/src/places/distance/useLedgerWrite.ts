import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ProblemError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'

/** Writes to a ledger, and what follows: everything that shows the bike is fetched anew, what is wrong goes to its field. */
export function useLedgerWrite(bikeId: string) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const [busy, setBusy] = useState(false)
  /** Sentences by field; '' for what concerns the whole. */
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({})
  /** What the first of them is, as a code. */
  const [code, setCode] = useState<string | null>(null)
  const refresh = async (): Promise<void> => {
    await Promise.all([
      client.invalidateQueries({ queryKey: keys.bike(bikeId) }),
      client.invalidateQueries({ queryKey: keys.ledger(bikeId) }),
      client.invalidateQueries({ queryKey: keys.lineUp }),
      client.invalidateQueries({ queryKey: keys.rack }),
    ])
  }
  /** @returns whether it was written */
  const write = async (job: () => Promise<unknown>, said = t('distanceOf.saved')): Promise<boolean> => {
    setBusy(true)
    setWrong({})
    setCode(null)
    try {
      await job()
      await refresh()
      tell(said)
      return true
    } catch (error) {
      const problem = error instanceof ProblemError ? error.problem : null
      setCode(problem?.fields?.[0]?.code ?? problem?.code ?? null)
      setWrong(
        problem?.fields
          ? Object.fromEntries(problem.fields.map(({ path, detail }) => [path, detail]))
          : { '': problem?.detail ?? t('app.notSaved') },
      )
      return false
    } finally {
      setBusy(false)
    }
  }
  return { busy, wrong, code, write, refresh }
}
