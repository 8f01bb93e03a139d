import { useEffect, useState } from 'react'
import type { PlannedPot, PotInput } from '@pelrin/core'
import { proxy } from 'comlink'
import { beside } from './beside.ts'
import type { Planning } from './pot.worker.ts'

const planning = beside<Planning>(() => new Worker(new URL('./pot.worker.ts', import.meta.url), { type: 'module' }))

/** A plan with the moment its minutes count from. */
export interface TimedPlan extends PlannedPot {
  readonly from: number
}

/** The best plan is waited for so long before a good one is shown, ms: a plan that changes twice is looked at twice. */
const PATIENCE_MS = 120

/**
 * The plan of a session at the pot, made beside the main thread; the last stands until the next is there.
 *
 * @param input minutes from `from`; null where nothing can be planned
 * @param from moment, ms
 */
export function usePotPlan(input: PotInput | null, from: number): TimedPlan | null {
  const key = input === null ? '' : JSON.stringify(input)
  const [plan, setPlan] = useState<TimedPlan | null>(null)
  useEffect(() => {
    if (key === '') return
    let [wanted, known] = [true, false]
    let patience: ReturnType<typeof setTimeout> | undefined
    const show = (planned: PlannedPot): void => {
      if (wanted) setPlan({ ...planned, from })
    }
    // It comes by another way than the best and may come after it.
    const good = (planned: PlannedPot): void => {
      if (!known) patience = setTimeout(() => show(planned), PATIENCE_MS)
    }
    void planning()
      .plan(JSON.parse(key) as PotInput, proxy(good))
      .then((best) => {
        known = true
        clearTimeout(patience)
        show(best)
      })
    return () => {
      wanted = false
      clearTimeout(patience)
    }
  }, [key, from])
  return key === '' ? null : plan
}
