import type { Assumptions } from '../assumptions.ts'

/** What a pot's thermometer sent. */
export interface TemperatureReading {
  /** Moment, ms. */
  readonly at: number
  /** As it was sent. */
  readonly celsius: number
}

/**
 * What a pot's temperature comes to. Only `ready` is fit to dip in; `cool` is not hot enough yet, `hot` above what its recipe wants; all
 * others are alarms, and none of them is ever shown as a temperature to go by.
 */
export type TemperatureWord = 'ready' | 'cool' | 'hot' | 'alarm' | 'lost' | 'stuck' | 'jumpy' | 'unit'

export interface TemperatureNow {
  readonly word: TemperatureWord
  /** What can be believed, °C; null where nothing can. */
  readonly celsius: number | null
}

/** Whether it rings: at the pot's alarm, and where its thermometer cannot be believed. Above the recipe's band a word is enough. */
export const isAlarm = (word: TemperatureWord): boolean => word !== 'ready' && word !== 'cool' && word !== 'hot'

/** No wax pot is colder, and none that is not on fire hotter, °C. */
const BELIEVABLE = { lowest: -20, highest: 140 }
/** A jump is remembered for so long, ms. */
const JUMP_KEPT_MS = 30_000

const asFahrenheit = (shown: number): number => (shown - 32) / 1.8

/**
 * Judges a pot by its thermometer: the shop's alarm first, then whether the thermometer can be believed at all, then the recipe's band.
 *
 * @param readings oldest first
 * @param now moment judged at, ms
 * @param band of the recipe in the pot, °C
 */
export function judgeTemperature(
  {
    readings,
    now,
    band,
    alarmCelsius,
  }: {
    readings: readonly TemperatureReading[]
    now: number
    band: { low: number; high: number }
    /** Where this pot rings. */
    alarmCelsius: number
  },
  assumed: Assumptions['pot'],
): TemperatureNow {
  const last = readings.at(-1)
  if (!last || now - last.at > assumed.silentSeconds * 1000) return { word: 'lost', celsius: null }
  const { celsius } = last
  // A pot of 75 to 105 °C is 167 to 221 °F: what reads so is a thermometer set to the other unit.
  if (celsius > BELIEVABLE.highest)
    return asFahrenheit(celsius) < alarmCelsius ? { word: 'unit', celsius: null } : { word: 'alarm', celsius: null }
  // Whatever else is wrong with it: what may be too hot is said to be.
  if (celsius > alarmCelsius) return { word: 'alarm', celsius }
  if (!(celsius >= BELIEVABLE.lowest) || jumped(readings, now, assumed.spikeCelsius))
    return { word: 'jumpy', celsius: null }
  if (stuck(readings, now, assumed.stuckMinutes * 60_000)) return { word: 'stuck', celsius: null }
  if (celsius < band.low) return { word: 'cool', celsius }
  return { word: celsius > band.high ? 'hot' : 'ready', celsius }
}

/** No wax heats or cools as fast as that. */
function jumped(readings: readonly TemperatureReading[], now: number, by: number): boolean {
  const late = readings.filter(({ at }) => now - at <= JUMP_KEPT_MS)
  return late.some((one, i) => i > 0 && Math.abs(one.celsius - late[i - 1]!.celsius) > by)
}

/** A pot that is held at a temperature still moves by a tenth now and then. */
function stuck(readings: readonly TemperatureReading[], now: number, over: number): boolean {
  const first = readings[0]
  if (!first || now - first.at < over) return false
  const late = readings.filter(({ at }) => now - at <= over)
  return late.length > 2 && late.every(({ celsius }) => celsius === late[0]!.celsius)
}

/** What was on a chain that went into the wax. */
export const BATH_CONDITIONS = ['clean', 'wet', 'gritty'] as const
export type BathCondition = (typeof BATH_CONDITIONS)[number]

/** Chains a bath of wax has had, wet and gritty ones counted more, of how many it takes. */
export const bathLoad = (
  dipped: Readonly<Partial<Record<BathCondition, number>>>,
  assumed: Assumptions['pot'],
): { readonly load: number; readonly most: number; readonly change: boolean } => {
  const { clean = 0, wet = 0, gritty = 0 } = dipped
  const load = clean + wet * assumed.wetCounts + gritty * assumed.grittyCounts
  return { load, most: assumed.bathChains, change: load >= assumed.bathChains }
}
