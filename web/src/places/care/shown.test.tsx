// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import {
  careSteps,
  CLEANINGS,
  DEFAULTS,
  SHIPPED_SCHOOLS,
  SHIPPED_WAX,
  TREATMENTS,
  waxingAsUsual,
  type CareJob,
  type ChainHandling,
} from '@pelrin/core'
import type { BikeCare, CareEvent, EventDate } from '@pelrin/contract'
import { dayAfter, today } from '../../messages/format.ts'
import { inApp } from '../../testing/inApp.tsx'
import { textOf } from '../../testing/textOf.ts'
import { CareHistory } from './CareHistory.tsx'
import { CareScale } from './CareScale.tsx'
import { StepsByPart } from '../../pieces/StepsByPart.tsx'
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
  const handling: ChainHandling = {
    drive: {
      type: 'derailleur',
      motor: null,
      guide: null,
      wideNarrow: null,
      clutch: null,
      cageLock: true,
      discBrake: null,
      timing: false,
      speeds: 11,
    },
    schools: SHIPPED_SCHOOLS,
    present: { kind: 'link', openedBy: 'pliers', oneUse: false },
    joint: { kind: 'link', arrow: true, letteredOut: false, greased: false, guide: null, sheet: null },
    rePress: 'excluded',
    markedOut: false,
  }
  const job = (more: Partial<CareJob>): CareJob => ({
    care: 'immersion-wax',
    cleaning: 'wipe',
    before: 'immersion-wax',
    wet: false,
    checkFirst: false,
    handling,
    waxing: waxingAsUsual(SHIPPED_WAX, DEFAULTS.pot, { vessel: 'slow-cooker', heatMinutes: 38 }),
    ...more,
  })
  it('each has words and its wait, and every caution of a part of the work once, for every way to treat a chain', () => {
    for (const care of TREATMENTS)
      for (const cleaning of CLEANINGS) {
        const steps = careSteps(job({ care, cleaning, before: 'wet-oil', checkFirst: true }))
        const markup = renderToStaticMarkup(<StepsByPart steps={steps} />)
        expect(markup).not.toMatch(/caring\.|jobs\.|steps\./)
        const cautions = markup.match(/role="note"/g) ?? []
        expect(cautions.length).toBeGreaterThanOrEqual(new Set(steps.flatMap(({ hazards }) => hazards)).size)
        expect(markup.match(/\(wait \d+ min\)/g) ?? []).toHaveLength(steps.filter(({ waits }) => waits !== null).length)
      }
  })
  it('take one outer link out of a chain that is closed by a pin, before its wax', () => {
    const said = (present: ChainHandling['present']): string =>
      textOf(renderToStaticMarkup(<StepsByPart steps={careSteps(job({ handling: { ...handling, present } }))} />))
    const pinned = said({ kind: 'pin', openedBy: null, oneUse: true })
    expect(pinned).toContain('Set the tool square on the joining pin and drive it right out.')
    expect(pinned).toContain('the next pin of the same outer link')
    expect(said(handling.present)).not.toContain('same outer link')
  })
  it('say why where one is chosen', async () => {
    const { user } = inApp(<StepsByPart steps={careSteps(job({ wet: true }))} />)
    expect(screen.queryByText(/spits in hot wax/)).toBeNull()
    await user.click(screen.getByRole('button', { name: /Dry it right through/ }))
    expect(screen.getByText(/spits in hot wax/)).toBeTruthy()
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
