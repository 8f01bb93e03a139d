import { useEffect, useRef, useState } from 'react'
import type { AskedOfBike, AssumptionOverrides, BikeForParts, Catalogue } from '@pelrin/core'
import type { BikeMatch } from '@pelrin/contract'
import type { PartsAnswered, PartsTold } from './parts.worker.ts'

let worker: Worker | null = null
let told: Catalogue | null = null
let asked = 0
const waiting = new Map<number, (match: BikeMatch) => void>()

function askWorker(
  catalogue: Catalogue,
  question: Omit<PartsTold & { kind: 'question' }, 'ask' | 'kind'>,
): Promise<BikeMatch> {
  if (!worker) {
    worker = new Worker(new URL('./parts.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<PartsAnswered>) => {
      // The core's lists are read only, the contract's are not: what they hold is the same.
      waiting.get(data.ask)?.(data.match as unknown as BikeMatch)
      waiting.delete(data.ask)
    }
  }
  if (told !== catalogue) worker.postMessage({ kind: 'catalogue', catalogue } satisfies PartsTold)
  told = catalogue
  const ask = ++asked
  const answer = new Promise<BikeMatch>((done) => waiting.set(ask, done))
  worker.postMessage({ kind: 'question', ask, ...question } satisfies PartsTold)
  return answer
}

/**
 * What fits a bike, matched beside the main thread; the last answer stands until the next is there.
 *
 * @returns null before the first answer
 */
export function usePartsMatch(
  bike: BikeForParts | undefined,
  question: AskedOfBike,
  catalogue: Catalogue | undefined,
  assumptions: AssumptionOverrides,
): BikeMatch | null {
  const key = bike === undefined ? '' : JSON.stringify({ bike, asked: question, assumptions })
  const [match, setMatch] = useState<BikeMatch | null>(null)
  const newest = useRef(key)
  useEffect(() => {
    newest.current = key
    if (key === '' || catalogue === undefined) return
    void askWorker(catalogue, JSON.parse(key) as Parameters<typeof askWorker>[1]).then((found) => {
      if (newest.current === key) setMatch(found)
    })
  }, [key, catalogue])
  return match
}
