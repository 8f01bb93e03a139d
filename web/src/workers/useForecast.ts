import { useEffect, useRef, useState } from 'react'
import type { AssumptionOverrides, ChainForecastInput, ForecastPicture } from '@pelrin/core'
import type { ForecastAsked } from './forecast.worker.ts'

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, (picture: ForecastPicture | null) => void>()

function askWorker(
  input: ChainForecastInput,
  assumptions: AssumptionOverrides | undefined,
): Promise<ForecastPicture | null> {
  if (!worker) {
    worker = new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<{ ask: number; picture: ForecastPicture | null }>) => {
      waiting.get(data.ask)?.(data.picture)
      waiting.delete(data.ask)
    }
  }
  const ask = ++asked
  const answer = new Promise<ForecastPicture | null>((done) => waiting.set(ask, done))
  worker.postMessage({ ask, input, assumptions } satisfies ForecastAsked)
  return answer
}

export interface LiveForecast {
  /** Of the newest input answered; null before the first, or when the distance is not known. */
  readonly picture: ForecastPicture | null
  /** An answer to the newest input is still on its way. */
  readonly pending: boolean
}

/** The forecast of a chain, worked out beside the main thread; what was asked last wins. */
export function useForecast(
  input: ChainForecastInput | null,
  assumptions: AssumptionOverrides | undefined,
): LiveForecast {
  // Inputs are made anew with every render: what they say decides whether to ask again.
  const key = input === null ? '' : JSON.stringify([input, assumptions])
  const [answer, setAnswer] = useState<{ key: string; picture: ForecastPicture | null }>({ key: '', picture: null })
  const newest = useRef(key)
  useEffect(() => {
    newest.current = key
    if (key === '') return
    const [parsed, assumed] = JSON.parse(key) as [ChainForecastInput, AssumptionOverrides | undefined]
    void askWorker(parsed, assumed ?? undefined).then((picture) => {
      if (newest.current === key) setAnswer({ key, picture })
    })
  }, [key])
  if (key === '') return { picture: null, pending: false }
  return { picture: answer.picture, pending: answer.key !== key }
}
