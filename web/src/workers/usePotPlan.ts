import { useEffect, useState } from 'react'
import type { PlannedPot, PotInput } from '@pelrin/core'
import type { PotAnswered, PotAsked } from './pot.worker.ts'

type Take = (answered: PotAnswered) => void

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, Take>()

/** @returns how nobody waits for it any more */
function askWorker(input: PotInput, take: Take): () => void {
  if (!worker) {
    worker = new Worker(new URL('./pot.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<PotAnswered>) => waiting.get(data.ask)?.(data)
  }
  const ask = ++asked
  waiting.set(ask, take)
  worker.postMessage({ ask, input } satisfies PotAsked)
  return () => waiting.delete(ask)
}

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
    let patience: ReturnType<typeof setTimeout> | undefined
    const leave = askWorker(JSON.parse(key) as PotInput, ({ planned, last }) => {
      clearTimeout(patience)
      const show = (): void => setPlan({ ...planned, from })
      if (last) show()
      else patience = setTimeout(show, PATIENCE_MS)
    })
    return () => {
      clearTimeout(patience)
      leave()
    }
  }, [key, from])
  return key === '' ? null : plan
}
