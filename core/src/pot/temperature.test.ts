import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bathLoad, DEFAULTS, isAlarm, judgeTemperature, type TemperatureReading } from '../index.ts'

const NOW = 1_000_000_000
const BAND = { low: 75, high: 90 }
/** One a second up to now. */
const trace = (values: readonly number[]): TemperatureReading[] =>
  values.map((celsius, i) => ({ at: NOW - (values.length - 1 - i) * 1000, celsius }))
const wordOf = (readings: readonly TemperatureReading[], now = NOW): string =>
  judgeTemperature({ readings, now, band: BAND, alarmCelsius: DEFAULTS.pot.alarmCelsius }, DEFAULTS.pot).word
/** Holds a temperature as a thermostat does. */
const held = (about: number, seconds = 60): number[] => Array.from({ length: seconds }, (_, i) => about + (i % 3) * 0.1)

describe('a pot by its thermometer', () => {
  it('is ready in its recipe’s band, too cool below it, too hot above it', () => {
    expect(
      judgeTemperature(
        { readings: trace(held(82)), now: NOW, band: BAND, alarmCelsius: DEFAULTS.pot.alarmCelsius },
        DEFAULTS.pot,
      ),
    ).toEqual({
      word: 'ready',
      celsius: expect.closeTo(82, 0) as number,
    })
    expect([wordOf(trace(held(60))), wordOf(trace(held(97)))]).toEqual(['cool', 'hot'])
    // Outside of its recipe's band it says a word; it rings at its alarm, and for a thermometer nobody can believe.
    expect((['cool', 'ready', 'hot', 'alarm', 'lost', 'stuck'] as const).map(isAlarm)).toEqual([
      ...[false, false, false],
      ...[true, true, true],
    ])
  })
  it('above the alarm is an alarm, at the first reading that says so', () => {
    expect(wordOf(trace([...held(85), 118]))).toBe('alarm')
    expect(wordOf(trace([118]))).toBe('alarm')
  })
  it('that says nothing any more is an alarm, not the last thing it said', () => {
    expect(wordOf(trace(held(82)), NOW + 19_000)).toBe('ready')
    expect(
      judgeTemperature(
        { readings: trace(held(82)), now: NOW + 21_000, band: BAND, alarmCelsius: DEFAULTS.pot.alarmCelsius },
        DEFAULTS.pot,
      ),
    ).toEqual({
      word: 'lost',
      celsius: null,
    })
    expect(wordOf([])).toBe('lost')
  })
  it('that never changes is stuck, once it had time to', () => {
    expect(wordOf(trace(Array.from({ length: 400 }, () => 82)))).toBe('ready')
    expect(wordOf(trace(Array.from({ length: 500 }, () => 82)))).toBe('stuck')
  })
  it('that jumps is not believed for half a minute, up or down', () => {
    expect(wordOf(trace([...held(82), 41, 82, 82.1]))).toBe('jumpy')
    expect(wordOf(trace([...held(82), 41, ...held(82, 40)]))).toBe('ready')
    expect(wordOf(trace([...held(82), -40]))).toBe('jumpy')
  })
  it('set to the other unit is told, and what is too hot in both is an alarm', () => {
    expect(wordOf(trace(held(180)))).toBe('unit')
    expect(wordOf(trace(held(260)))).toBe('alarm')
  })
  it('is never called ready out of its band, whatever was sent', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -100, max: 400, noNaN: true }), { minLength: 1 }), (values) => {
        const now = judgeTemperature(
          { readings: trace(values), now: NOW, band: BAND, alarmCelsius: DEFAULTS.pot.alarmCelsius },
          DEFAULTS.pot,
        )
        const last = values.at(-1)!
        if (last < BAND.low || last > BAND.high) expect(now.word).not.toBe('ready')
        if (isAlarm(now.word) && now.word !== 'alarm') expect(now.celsius).toBeNull()
        if (last > DEFAULTS.pot.alarmCelsius) expect(isAlarm(now.word)).toBe(true)
      }),
    )
  })
})

describe('a bath of wax', () => {
  it('counts wet and gritty chains more, and is changed at its load', () => {
    expect(bathLoad({ clean: 20, wet: 5, gritty: 2 }, DEFAULTS.pot)).toEqual({ load: 36, most: 60, change: false })
    expect(bathLoad({ gritty: 20 }, DEFAULTS.pot).change).toBe(true)
    expect(bathLoad({}, DEFAULTS.pot).load).toBe(0)
  })
})
