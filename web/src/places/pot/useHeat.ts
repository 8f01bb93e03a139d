import { useQueries } from '@tanstack/react-query'
import { judgeTemperature, type Assumptions, type PotRecipe, type TemperatureNow } from '@pelrin/core'
import type { PotNow, PotTemperature } from '@pelrin/contract'
import { potTemperature } from '../../api/queries.ts'

/** A pot's thermometer, judged. */
export interface Heat extends TemperatureNow {
  readonly readings: PotTemperature['readings']
  /** The server's clock, ms: it goes on while this device hears nothing of it. */
  readonly clock: number
}

/** What the thermometers in the pots say, by pot, judged at this moment; a pot without one is lost. */
export function useHeat(
  pots: readonly PotNow[],
  recipeOf: (potId: string) => PotRecipe,
  now: number,
  times: Assumptions['pot'],
): (potId: string) => Heat {
  const sent = useQueries({ queries: pots.map(({ id, thermometer }) => potTemperature(id, thermometer)) })
  const heats = new Map(
    pots.map(({ id, alarmCelsius }, i): [string, Heat] => {
      const { data, dataUpdatedAt } = sent[i]!
      const clock = data ? data.now + Math.max(0, now - dataUpdatedAt) : now
      const { lowCelsius: low, highCelsius: high } = times[recipeOf(id)]
      const readings = data?.readings ?? []
      return [
        id,
        { ...judgeTemperature({ readings, now: clock, band: { low, high }, alarmCelsius }, times), readings, clock },
      ]
    }),
  )
  return (potId) => heats.get(potId)!
}
