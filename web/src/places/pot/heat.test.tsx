import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS, isAlarm, judgeTemperature, type TemperatureReading } from '@pelrin/core'
import type { PotNow } from '@pelrin/contract'
import { textOf } from '../../testing/textOf.ts'
import { at, FROM } from './chain.testing.ts'
import { PotHeat } from './PotHeat.tsx'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const times = DEFAULTS.pot
const RECIPE = 'soak-and-hang'
const { lowCelsius: low, highCelsius: high } = times[RECIPE]
const POT: PotNow = {
  id: 'copper',
  name: 'Copper',
  capacity: 4,
  onSince: at(-60),
  thermometer: true,
  vessel: 'thermostat',
  heatMinutes: DEFAULTS.pot.heatMinutes,
  alarmCelsius: DEFAULTS.pot.alarmCelsius,
  own: { heatMinutes: null, alarmCelsius: null },
  bath: { load: 12, most: 60, change: false, since: null },
  version: 1,
}

/** A reading each ten seconds up to so many seconds ago. */
const sent = (celsius: (i: number) => number, { minutes = 20, ago = 0 } = {}): TemperatureReading[] => {
  const last = FROM - ago * 1000
  return Array.from({ length: minutes * 6 }, (_, i) => ({
    at: last - (minutes * 6 - 1 - i) * 10_000,
    celsius: celsius(i),
  }))
}
/** Held at a temperature, as one is: a tenth up and down. */
const held = (celsius: number) => (i: number) => celsius + (i % 3) / 10

function drawn(readings: readonly TemperatureReading[], more: Partial<PotNow> = {}): { markup: string; text: string } {
  const heat = {
    ...judgeTemperature({ readings, now: FROM, band: { low, high }, alarmCelsius: times.alarmCelsius }, times),
    readings: [...readings],
    clock: FROM,
  }
  const markup = renderToStaticMarkup(
    <PotHeat
      pot={{ ...POT, ...more }}
      recipe={RECIPE}
      heat={heat}
      now={FROM}
      times={times}
      busy={false}
      onSwitch={() => undefined}
      onBath={() => undefined}
      onChange={() => undefined}
    />,
  )
  return { markup, text: textOf(markup) }
}
/** The temperature as it is told, if it is. */
const told = (text: string): string | undefined => /(\d+) °C(?! *[:;])/.exec(text.replace(/set it to °C/, ''))?.[1]

describe('what a pot’s thermometer says', () => {
  it('is its temperature and that chains may go in, where both are so', () => {
    const { markup, text } = drawn(sent(held((low + high) / 2)))
    expect(told(text)).toBe(String(Math.round((low + high) / 2)))
    expect(text).toContain('ready to dip')
    expect(markup).toContain('role="status"')
    expect(markup).not.toContain('role="alert"')
  })

  it('is no alarm while it is only too cool', () => {
    const { markup, text } = drawn(sent(held(low - 10)))
    expect(text).toContain('too cool to dip')
    expect(markup).not.toContain('role="alert"')
  })

  it('is an alarm with what to do above the shop’s own limit', () => {
    const { markup, text } = drawn(sent(held(times.alarmCelsius + 4)))
    expect(markup).toContain('role="alert"')
    expect(text).toMatch(/switch it off, lid on, no water/)
  })

  it.each<[string, TemperatureReading[], RegExp]>([
    ['is silent', sent(held(90), { ago: 600 }), /no signal/],
    ['never spoke', [], /no signal/],
    ['is stuck', sent(() => 90, { minutes: times.stuckMinutes + 5 }), /stuck/],
    ['jumps', sent((i) => (i % 7 === 0 ? 90 - times.spikeCelsius - 5 : 90 + (i % 3) / 10)), /jumps/],
    ['reads in the other unit', sent(held(200)), /°F/],
  ])('is an alarm and never a temperature to go by where it %s', (_, readings, why) => {
    const { markup, text } = drawn(readings)
    expect(markup).toContain('role="alert"')
    expect(text).toMatch(why)
    expect(text).not.toContain('ready to dip')
    expect(told(text)).toBeUndefined()
  })

  it('is of no concern in a pot that is off, unless it is far too hot all the same', () => {
    const off = { onSince: null }
    expect(drawn([], off).markup).not.toContain('role="alert"')
    expect(drawn(sent(held(70)), off).text).toContain('still 70 °C')
    const { word } = judgeTemperature(
      {
        readings: sent(held(times.alarmCelsius + 4)),
        now: FROM,
        band: { low, high },
        alarmCelsius: times.alarmCelsius,
      },
      times,
    )
    expect(isAlarm(word)).toBe(true)
    expect(drawn(sent(held(times.alarmCelsius + 4)), off).markup).toContain('role="alert"')
  })

  it('leaves a gap in the trace where nothing was sent', () => {
    const path = (readings: TemperatureReading[]): number =>
      (/ d="([^"]*)"/.exec(drawn(readings).markup)?.[1] ?? '').split('M').length - 1
    const whole = sent(held(90))
    expect(path(whole)).toBe(1)
    expect(path(whole.filter(({ at: moment }) => moment < FROM - 600_000 || moment > FROM - 300_000))).toBe(2)
  })

  it('is not asked of a pot without one, which says so', () => {
    const { markup, text } = drawn([], { thermometer: false })
    expect(text).toContain('no thermometer in this pot')
    expect(markup).not.toContain('<svg')
  })

  it('stands beside how far its bath is, and that it is to be changed', () => {
    expect(drawn(sent(held(90))).text).toMatch(/12.*60/)
    const due = drawn(sent(held(90)), { bath: { load: 61, most: 60, change: true, since: null } })
    expect(due.markup).toContain('brass')
    expect(due.text).not.toBe(drawn(sent(held(90))).text)
  })
})
