import { number } from './format.ts'
import { formats } from './shopFormats.ts'
import { typedNumber } from './typedNumber.ts'

/** What a temperature is typed in, as it stands behind its field. */
export const degrees = (): string => `°${formats().temperatureUnit}`

/** A temperature as it was typed in the shop's unit, °C; undefined for what is none. */
export function typedCelsius(typed: string): number | undefined {
  const value = typedNumber(typed)
  return value === undefined || formats().temperatureUnit === 'C' ? value : ((value - 32) * 5) / 9
}

/** What would be typed for a temperature, given in °C. */
export const celsiusTyped = (celsius: number): string =>
  formats().temperatureUnit === 'C' ? String(celsius) : number((celsius * 9) / 5 + 32, 1).replace('−', '-')
