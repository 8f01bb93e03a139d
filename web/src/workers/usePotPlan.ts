import { useEffect, useState } from 'react'
import type { PlannedPot, PotInput } from '@pelrin/core'
import type { PotAnswered, PotAsked } from './pot.worker.ts'

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, (planned: PlannedPot) => void>()

function askWorker(input: PotInput): Promise<PlannedPot> {
  if (!worker) {
    worker = new Worker(new URL('./pot.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<PotAnswered>) => {
      waiting.get(data.ask)?.(data.planned)
      waiting.delete(data.ask)
    }
  }
  const ask = ++asked
  const answer = new Promise<PlannedPot>((done) => waiting.set(ask, done))
  worker.postMessage({ ask, input } satisfies PotAsked)
  return answer
}

/** A plan with the moment its minutes count from. */
export interface TimedPlan extends PlannedPot {
  readonly from: number
}

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
    let newest = true
    void askWorker(JSON.parse(key) as PotInput).then((planned) => {
      if (newest) setPlan({ ...planned, from })
    })
    return () => {
      newest = false
    }
  }, [key, from])
  return key === '' ? null : plan
}
