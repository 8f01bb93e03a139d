import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { CatalogueItem } from '@pelrin/contract'
import { ProblemError } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'

/** What was refused, in words, by field; under no name what concerns no field. */
export type Wrong = Readonly<Record<string, string>>

/**
 * Writes to the catalogue or its stock: what is wrong comes back at its field; the part is shown as the answer has it, and everything
 * else that shows parts is asked for anew, which nobody waits for: what is pressed next is meant for the place, not for a form that
 * has done its work.
 */
export function usePartWrite() {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [wrong, setWrong] = useState<Wrong>({})
  const [busy, setBusy] = useState(false)
  /** @returns whether it was written; the problem goes to `refused`, if it is wanted there */
  const write = async (
    job: () => Promise<CatalogueItem | undefined>,
    refused?: (problem: ProblemError) => boolean,
  ): Promise<boolean> => {
    setBusy(true)
    setWrong({})
    try {
      const item = await job()
      if (item) await showAnswer(client, keys.cataloguePart(item.id), item)
      void client.invalidateQueries({ queryKey: keys.catalogue })
      void client.invalidateQueries({ queryKey: ['bike'] })
      return true
    } catch (error) {
      if (!(error instanceof ProblemError)) setWrong({ '': t('app.notSaved') })
      else if (refused?.(error) !== true)
        setWrong(
          error.problem.fields
            ? Object.fromEntries(error.problem.fields.map(({ path, detail }) => [path, detail]))
            : { '': error.problem.detail },
        )
      return false
    } finally {
      setBusy(false)
    }
  }
  return { wrong, setWrong, busy, write }
}
