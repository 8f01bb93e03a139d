import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { careSteps, CLEANINGS, TREATMENTS } from '@pelrin/core'
import type { BikeCare, CareEvent, EventDate } from '@pelrin/contract'
import { dayAfter, today } from '../../messages/format.ts'
import { textOf } from '../../testing/textOf.ts'
import { CareHistory } from './CareHistory.tsx'
import { CareScale } from './CareScale.tsx'
import { CareStepList } from './CareStepList.tsx'
import { WantedDays } from './WantedDays.tsx'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const on = (days: number): string => dayAfter(`${today()}T12:00:00Z`, days).slice(0, 10)

describe('days a bike is wanted', () => {
  const shown = (dates: EventDate[], care = 'immersion-wax'): string =>
    textOf(
      renderToStaticMarkup(
        <WantedDays
          care={{ chain: { care }, eventDates: dates, firstRideKm: 15 } as unknown as BikeCare}
          unit="km"
          busy={false}
          onAdd={() => undefined}
          onDrop={() => undefined}
        />,
      ),
    )
  const date = (care: EventDate['care']): EventDate => ({ id: 'e', day: on(9), name: 'Sand race', care })
  it('say what for, and of a waxed chain by when it is waxed and how far it is ridden then', () => {
    expect(shown([date({ word: 'treat', by: on(7) })])).toMatch(/Sand race : wax it by .+, then ride 15 km before/)
    expect(shown([date({ word: 'ride-in', by: on(8) })])).toMatch(/Sand race : waxed; ride it in, 15 km, by/)
    expect(shown([date({ word: 'ready', by: on(9) })])).toContain('the chain is ready for it')
  })
  it('speak of no first ride where it is oiled, and of nothing where its care is not known', () => {
    const oiled = shown([date({ word: 'treat', by: on(8) })], 'dry-oil')
    expect(oiled).toMatch(/Sand race : treat it by/)
    expect(oiled).not.toContain('15 km')
    expect(shown([date(null)], 'unknown')).toContain('how its chain is cared for is not known')
  })
  it('say what they are good for while there is none', () => {
    expect(shown([])).toMatch(/None is known\. Give the day of an event/)
  })
})

describe('what is used up', () => {
  const scale = (used: number, all: number): string =>
    renderToStaticMarkup(<CareScale label="Distance" used={used} all={all} unit="km" />)
  const mark = (markup: string): number => Number(/M([\d.]+) 40 V8/.exec(markup)![1])
  const notch = (markup: string): number => Number(/L([\d.]+) 16/.exec(markup)![1])
  it('is told in words beside its drawing, and its mark stands before the notch until it is past', () => {
    expect(textOf(scale(174, 200))).toContain('Distance: 174 of 200 km')
    expect(mark(scale(174, 200))).toBeLessThan(notch(scale(174, 200)))
    expect(mark(scale(230, 200))).toBeGreaterThan(notch(scale(230, 200)))
  })
  it('has its mark and its notch on the rule, however far it is past', () => {
    for (const used of [0, 1, 199, 200, 2_000, 90_000]) {
      const markup = scale(used, 200)
      for (const x of [mark(markup), notch(markup)]) expect(x >= 0 && x <= 390).toBe(true)
    }
  })
  it('never has more ticks than can be told apart', () => {
    for (const all of [1, 7, 45, 90, 300, 5_000, 40_000])
      expect(scale(0, all).match(/<line/g)!.length).toBeLessThanOrEqual(26)
  })
})

describe('steps of a care', () => {
  it('each has words, its wait, and every caution of it, for every way to treat a chain', () => {
    for (const care of TREATMENTS)
      for (const cleaning of CLEANINGS) {
        const steps = careSteps({
          care,
          cleaning,
          before: 'wet-oil',
          checkFirst: true,
          pinned: true,
          motor: null,
          discBrake: null,
        })
        const markup = renderToStaticMarkup(<CareStepList steps={steps} />)
        expect(markup).not.toMatch(/caring\.|jobs\./)
        expect(markup.match(/role="note"/g) ?? []).toHaveLength(steps.flatMap(({ hazards }) => hazards).length)
        expect(markup.match(/\(wait \d+ min\)/g) ?? []).toHaveLength(steps.filter(({ waits }) => waits !== null).length)
      }
  })
  it('tell a chain that is closed by a pin to get a link before its wax', () => {
    const job = { cleaning: 'strip', before: 'unknown', checkFirst: false, motor: false, discBrake: false } as const
    const said = (pinned: boolean): string =>
      textOf(renderToStaticMarkup(<CareStepList steps={careSteps({ ...job, care: 'immersion-wax', pinned })} />))
    expect(said(true)).toMatch(/closed by a pin: push that out and fit a link/)
    expect(said(false)).not.toContain('closed by a pin')
  })
})

describe('what was done so far', () => {
  const event = (more: Partial<CareEvent>): CareEvent => ({
    id: 'c',
    at: `${on(-3)}T10:00:00Z`,
    kind: 'treated',
    care: 'drip-wax',
    cleaning: 'wipe',
    atHome: false,
    note: null,
    person: 'Tove Sandell',
    unlooked: false,
    bike: null,
    ...more,
  })
  const shown = (events: CareEvent[]): string =>
    textOf(renderToStaticMarkup(<CareHistory bikeId="b" events={events} onBack={() => undefined} />))
  it('names care, cleaning, place, note and who', () => {
    expect(shown([event({ atHome: true, note: 'after the causeway' })])).toContain(
      'drip wax, wiped, at home, after the causeway, Tove Sandell',
    )
    expect(shown([event({ kind: 'squeak', care: null, cleaning: null })])).toContain('squeaked, Tove Sandell')
  })
  it('says so where nothing is written down', () => {
    expect(shown([])).toContain('Nothing is written down yet.')
  })
})
