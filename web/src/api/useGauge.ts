import { useEffect, useRef, useState } from 'react'
import { safeParse } from 'valibot'
import { v7 } from 'uuid'
import { GaugeEvent, gaugeEventsPath, type GaugeState } from '@pelrin/contract'

/** How a connected gauge stands, as far as this screen knows. */
export interface GaugeNow {
  /** `unreachable`: the server does not answer, so nothing is known of the gauge. */
  readonly state: GaugeState | 'unreachable'
  readonly battery: number | null
  readonly zeroedAt: string | null
  readonly garbled: number
  /** Its readings come to this screen. */
  readonly here: boolean
}

const UNKNOWN: GaugeNow = { state: 'unreachable', battery: null, zeroedAt: null, garbled: 0, here: true }

/**
 * Watches a connected gauge, and is handed its readings while this screen holds it.
 *
 * @param round what is being measured: readings that came while this screen was loaded again are caught up on as
 *   long as it is the same
 */
export function useGauge(
  instrumentId: string | undefined,
  round: string,
  onReading: (percent: number) => void,
): { gauge: GaugeNow | null; take: () => void } {
  const [gauge, setGauge] = useState<GaugeNow>(UNKNOWN)
  const [takes, setTakes] = useState(0)
  const handler = useRef(onReading)
  useEffect(() => {
    handler.current = onReading
  }, [onReading])
  useEffect(() => {
    if (instrumentId === undefined) return
    const holder = v7()
    const key = `pelrin-gauge ${instrumentId} ${round}`
    let here = true
    const source = new EventSource(gaugeEventsPath(instrumentId, holder, sessionStorage.getItem(key) ?? undefined))
    source.addEventListener('gauge', (message) => {
      const { data, lastEventId } = message as MessageEvent<string>
      const parsed = safeParse(GaugeEvent, JSON.parse(data))
      if (!parsed.success) return
      const event = parsed.output
      sessionStorage.setItem(key, lastEventId)
      if (event.kind === 'state') {
        const { state, battery, zeroedAt, garbled } = event
        setGauge((before) => ({ ...before, state, battery, zeroedAt, garbled }))
      } else if (event.kind === 'held') {
        here = event.holder === holder
        setGauge((before) => ({ ...before, here: event.holder === holder }))
      } else if (event.kind === 'reading' && here) handler.current(event.percent)
    })
    source.onerror = () => setGauge((before) => ({ ...before, state: 'unreachable' }))
    return () => {
      source.close()
      setGauge(UNKNOWN)
    }
  }, [instrumentId, round, takes])
  return { gauge: instrumentId === undefined ? null : gauge, take: () => setTakes((n) => n + 1) }
}
