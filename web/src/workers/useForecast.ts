import { useEffect, useRef, useState } from 'react'
import type { AssumptionOverrides, ChainForecastInput } from '@pelrin/core'
import { beside } from './beside.ts'
import type { CostsFor, ForecastAnswer, ForecastAsked, Forecasting } from './forecast.worker.ts'

const forecasting = beside<Forecasting>(
  () => new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' }),
)

/** Of the newest input answered; nulls before the first, or when the distance is not known. */
export interface LiveForecast extends ForecastAnswer {
  /** An answer to the newest input is still on its way. */
  readonly pending: boolean
}

const NOTHING: ForecastAnswer = { picture: null, costs: null }

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
  const [answered, setAnswered] = useState<{ key: string; answer: ForecastAnswer }>({ key: '', answer: NOTHING })
  const newest = useRef(key)
  useEffect(() => {
    newest.current = key
    if (key === '') return
    const asked = JSON.parse(key) as ForecastAsked
    void forecasting()
      .foretell(asked)
      .then((answer) => newest.current === key && setAnswered({ key, answer }))
  }, [key])
  if (key === '') return { ...NOTHING, pending: false }
  return { ...answered.answer, pending: answered.key !== key }
}
