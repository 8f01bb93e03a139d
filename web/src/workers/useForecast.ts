import { useEffect, useRef, useState } from 'react'
import type { AssumptionOverrides, ChainForecastInput } from '@pelrin/core'
import type { CostsFor, ForecastAnswered, ForecastAsked } from './forecast.worker.ts'

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, (answer: Answer) => void>()

type Answer = Pick<ForecastAnswered, 'picture' | 'costs'>

function askWorker(question: Omit<ForecastAsked, 'ask'>): Promise<Answer> {
  if (!worker) {
    worker = new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<ForecastAnswered>) => {
      waiting.get(data.ask)?.(data)
      waiting.delete(data.ask)
    }
  }
  const ask = ++asked
  const answer = new Promise<Answer>((done) => waiting.set(ask, done))
  worker.postMessage({ ask, ...question } satisfies ForecastAsked)
  return answer
}

/** Of the newest input answered; nulls before the first, or when the distance is not known. */
export interface LiveForecast extends Answer {
  /** An answer to the newest input is still on its way. */
  readonly pending: boolean
}

const NOTHING: Answer = { picture: null, costs: null }

/**
 * The forecast of a chain, worked out beside the main thread; what was asked last wins.
 *
 * @param costsFor where what waiting costs is wanted as well
 */
export function useForecast(
  input: ChainForecastInput | null,
  assumptions: AssumptionOverrides,
  costsFor?: CostsFor,
): LiveForecast {
  // Inputs are made anew with every render: what they say decides whether to ask again.
  const key = input === null ? '' : JSON.stringify({ input, assumptions, costsFor })
  const [answered, setAnswered] = useState<{ key: string; answer: Answer }>({ key: '', answer: NOTHING })
  const newest = useRef(key)
  useEffect(() => {
    newest.current = key
    if (key === '') return
    void askWorker(JSON.parse(key) as Omit<ForecastAsked, 'ask'>).then((answer) => {
      if (newest.current === key) setAnswered({ key, answer })
    })
  }, [key])
  if (key === '') return { ...NOTHING, pending: false }
  return { ...answered.answer, pending: answered.key !== key }
}
