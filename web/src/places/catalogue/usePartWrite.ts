import { useQueryClient } from '@tanstack/react-query'
import type { CatalogueItem } from '@pelrin/contract'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite } from '../../api/useWrite.ts'

/**
 * Writes to the catalogue or its stock: the part is shown as the answer has it, and everything else that shows parts is asked for
 * anew, which nobody waits for: what is pressed next is meant for the place, not for a form that has done its work.
 */
export function usePartWrite() {
  const client = useQueryClient()
  const { write: send, ...writing } = useWrite()
  /** @returns whether it was written */
  const write = async (
    job: () => Promise<CatalogueItem | undefined>,
    refused?: Parameters<typeof send>[1],
  ): Promise<boolean> =>
    (await send(async () => {
      const item = await job()
      if (item) await showAnswer(client, keys.cataloguePart(item.id), item)
      // Only what was written makes others stale: what somebody else wrote meanwhile is set beside what was typed first.
      void client.invalidateQueries({ queryKey: keys.catalogue })
      void client.invalidateQueries({ queryKey: ['bike'] })
      return true
    }, refused)) !== null
  return { ...writing, write }
}
