import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { ProblemError } from './client.ts'
import { keys } from './queries.ts'

/** What stood in the way of a write: a sentence, and one for each field it concerns. */
export interface Wrong {
  readonly code: string | null
  readonly sentence: string
  readonly fields: Readonly<Record<string, string>>
}

/** Writes about a bike that are sent at once; what stood in the way comes back as sentences. */
export function useBikeWrite(bikeId: string) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [wrong, setWrong] = useState<Wrong | null>(null)
  const [busy, setBusy] = useState(false)
  // The next key acts on the bike as it is now; lists of other things follow, and nobody waits for them.
  const anew = async (): Promise<void> => {
    void client.invalidateQueries({ queryKey: keys.catalogue })
    void client.invalidateQueries({ queryKey: keys.lineUp })
    // A chain or a joint may be looked at beside its bike.
    for (const kind of ['chain', 'joint']) void client.invalidateQueries({ queryKey: [kind] })
    await client.invalidateQueries({ queryKey: keys.bike(bikeId) })
  }
  /** @returns what was answered; null where it was refused */
  const write = async <T>(job: () => Promise<T>): Promise<T | null> => {
    setBusy(true)
    setWrong(null)
    try {
      const answer = await job()
      await anew()
      return answer
    } catch (error) {
      setWrong(asWrong(error, t('app.notSaved')))
      // A field that was wrong says nothing new of the bike: who mends it goes on at once.
      if (!(error instanceof ProblemError && error.problem.status === 422)) await anew()
      return null
    } finally {
      setBusy(false)
    }
  }
  /** What a field shows of what stood in the way: its own sentence, or room for one. */
  const field = (path: string) => ({ error: wrong?.fields[path] !== undefined, helperText: wrong?.fields[path] ?? ' ' })
  return { wrong, setWrong, busy, write, field }
}

function asWrong(error: unknown, offline: string): Wrong {
  if (!(error instanceof ProblemError)) return { code: null, sentence: offline, fields: {} }
  const { fields = [], code } = error.problem
  return {
    code: fields[0]?.code ?? code,
    sentence: fields[0]?.detail ?? error.message,
    fields: Object.fromEntries(fields.map(({ path, detail }) => [path, detail])),
  }
}
