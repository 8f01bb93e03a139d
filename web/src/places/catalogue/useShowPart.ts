import { useQueryClient } from '@tanstack/react-query'
import type { CatalogueItem } from '@pelrin/contract'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'

/**
 * Shows a part as it was answered, and has everything else that shows parts asked for anew, which nobody waits for: what is pressed next
 * is meant for the place, not for a form that has done its work.
 */
export function useShowPart(): (item: CatalogueItem) => Promise<void> {
  const client = useQueryClient()
  return async (item) => {
    await showAnswer(client, keys.cataloguePart(item.id), item)
    void client.invalidateQueries({ queryKey: keys.catalogue })
    void client.invalidateQueries({ queryKey: ['bike'] })
  }
}
