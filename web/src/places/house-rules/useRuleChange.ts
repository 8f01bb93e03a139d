import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { v7 } from 'uuid'
import { endpoints, type Moved, type RuleChange } from '@pelrin/contract'
import { ask } from '../../api/client.ts'

/** How long nothing has to be typed before a change is looked ahead at, ms. */
const PAUSE_MS = 500

/** A change of rules: looked ahead at while it is typed, then made. */
export function useRuleChange(change: RuleChange | null, onDone: (moved: Moved) => void) {
  const client = useQueryClient()
  const preview = useMutation({
    mutationFn: (previewed: RuleChange) => ask(endpoints.previewRules, { body: { change: previewed }, long: true }),
  })
  const make = useMutation({
    mutationFn: ({ made, reason }: { made: RuleChange; reason: string }) => {
      const id = v7()
      return ask(endpoints.changeRules, { body: { id, change: made, reason }, key: id, long: true })
    },
    onSuccess: async (moved) => {
      await client.invalidateQueries()
      onDone(moved)
    },
  })
  const { mutate: look, reset } = preview
  const asText = change === null ? null : JSON.stringify(change)
  useEffect(() => {
    reset()
    if (asText === null) return
    const timer = setTimeout(() => look(JSON.parse(asText) as RuleChange), PAUSE_MS)
    return () => clearTimeout(timer)
  }, [asText, look, reset])
  return { preview, make }
}
