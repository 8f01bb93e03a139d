import { DndContext } from '@dnd-kit/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { renderToStaticMarkup } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { beforeAll, describe, expect, it } from 'vitest'
import type { DiaryDay, DueVisit, ShopDue } from '@pelrin/contract'
import { dayAfter, today } from '../../messages/format.ts'
import { DueList } from './DueList.tsx'
import { keys } from '../../api/queries.ts'
import { LoadStrip } from './LoadStrip.tsx'
import { ShopsOwn } from './ShopsOwn.tsx'
import { textOf } from '../../testing/textOf.ts'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const on = (days: number): string => dayAfter(`${today()}T12:00:00Z`, days).slice(0, 10)
const item = (kind: string, days: number, pulledForwardDays = 0) => ({ kind, on: on(days), pulledForwardDays })
const visit = (customer: string, items: object[], more: object = {}): DueVisit =>
  ({
    customer: { id: customer, name: customer },
    day: on(2),
    because: 'good-weekday',
    minutes: 45,
    bikes: [{ bike: { id: `bike of ${customer}`, label: 'Sand racer', word: 'closing-in' }, items }],
    ...more,
  }) as unknown as DueVisit

describe('visits that are due', () => {
  const list = (visits: DueVisit[], chosen?: DueVisit): string =>
    renderToStaticMarkup(
      <MemoryRouter>
        <DndContext>
          <DueList visits={visits} chosen={chosen} busy={false} onChoose={() => undefined} onBook={() => undefined} />
        </DndContext>
      </MemoryRouter>,
    )
  it('name the customer, each bike with what is due on it and when, and what is done early', () => {
    const said = textOf(list([visit('Nell Quayle', [item('check', 2), item('care', 9, 7)])]))
    expect(said).toMatch(/45 min Nell Quayle Sand racer: .*; .*7 days early/)
  })
  it('say of what is late that it is', () => {
    expect(textOf(list([visit('Nell Quayle', [item('check', -3)])]))).toMatch(/was due|overdue|since/i)
  })
  it('mark the one chosen, whose button is Enter, and no other', () => {
    const visits = [visit('Nell Quayle', [item('check', 2)]), visit('Mara Lisk', [item('care', 2)])]
    const markup = list(visits, visits[1])
    expect(markup.match(/aria-current="true"/g)).toHaveLength(1)
    expect(markup.slice(markup.indexOf('aria-current'))).toContain('Mara Lisk')
    expect(markup.match(/>Enter</g)).toHaveLength(1)
  })
  it('say so when there are none', () => {
    expect(textOf(list([])).trim().length).toBeGreaterThan(10)
  })
})

describe('the load of the days ahead', () => {
  const day = (days: number, more: Partial<DiaryDay> = {}): DiaryDay => ({
    day: on(days),
    capacity: 240,
    booked: 0,
    due: 0,
    closed: null,
    ...more,
  })
  const strip = (days: DiaryDay[], chosen = days[0]!.day): string =>
    renderToStaticMarkup(
      <DndContext>
        <LoadStrip days={days} chosen={chosen} onChoose={() => undefined} />
      </DndContext>,
    )
  /** Heights of the bars of the first day: what is booked, then what is due. */
  const bars = (markup: string): number[] =>
    [...markup.matchAll(/<rect x="4"[^>]*height="([\d.]+)"/g)].map(([, height]) => Number(height))
  it('tells each day in minutes, the chosen one selected and reached by Tab', () => {
    const markup = strip([day(0, { booked: 90, due: 30 }), day(1)], on(0))
    expect(markup).toMatch(/aria-selected="true" aria-label="[^"]*90[^"]*30[^"]*240[^"]*" tabindex="0"/i)
    expect(markup.match(/tabindex="-1"/gi)).toHaveLength(1)
  })
  it('is drawn to one scale: twice the minutes are twice as high', () => {
    const [booked, due] = bars(strip([day(0, { booked: 120, due: 60 })]))
    expect(booked! / due!).toBeCloseTo(2, 6)
  })
  it('shows a day over its capacity as such, and never higher than the strip', () => {
    const over = strip([day(0, { booked: 200, due: 900 })])
    expect(over).toContain('brass')
    expect(bars(over).reduce((a, b) => a + b)).toBeLessThanOrEqual(84)
    expect(strip([day(0, { booked: 100, due: 100 })])).not.toContain('brass')
  })
  it('has no line of capacity on a closed day, and says that it is closed', () => {
    const closed = strip([day(0, { capacity: 0 })])
    expect(closed).toMatch(/aria-label="[^"]*closed/i)
    expect(closed).not.toContain('x1="1"')
  })
})

describe('what the shop has to see to itself', () => {
  const own = (items: ShopDue[], months: { month: string; bikes: number }[] = []): string => {
    const client = new QueryClient()
    client.setQueryData([...keys.diary, 'year'], { months })
    return renderToStaticMarkup(
      <QueryClientProvider client={client}>
        <MemoryRouter>
          <ShopsOwn items={items} />
        </MemoryRouter>
      </QueryClientProvider>,
    )
  }
  it('leads to the instrument to be checked and to the pot whose wax is to be changed', () => {
    const markup = own([
      { kind: 'bath', id: 'pot', name: 'Big pot', on: null, overdue: true },
      { kind: 'instrument', id: 'rule', name: 'Steel rule', on: on(4), overdue: false },
    ])
    expect([...markup.matchAll(/href="([^"]+)"/g)].map(([, to]) => to)).toEqual(['/pot', '/gauges/rule'])
    expect(textOf(markup)).toMatch(/Big pot.*Steel rule/)
  })
  it('tells what is late from what is only near', () => {
    const late = own([{ kind: 'instrument', id: 'rule', name: 'Steel rule', on: on(-4), overdue: true }])
    const near = own([{ kind: 'instrument', id: 'rule', name: 'Steel rule', on: on(4), overdue: false }])
    expect(textOf(late).replace(/\d+ \w+/, '')).not.toBe(textOf(near).replace(/\d+ \w+/, ''))
    expect(late).toContain('brass')
    expect(near).not.toContain('brass')
  })
  it('shows the year by months to one scale, each with its number', () => {
    const markup = own(
      [],
      [
        { month: '2026-03', bikes: 10 },
        { month: '2026-04', bikes: 5 },
      ],
    )
    expect([...markup.matchAll(/aria-label="([^"]+)"/g)].map(([, name]) => name)).toEqual([
      expect.stringMatching(/Mar.*10|10.*Mar/),
      expect.stringMatching(/Apr.*5|5.*Apr/),
    ])
    expect([...markup.matchAll(/height:(\d+)px/g)].map(([, height]) => Number(height))).toEqual([46, 23])
  })
})
