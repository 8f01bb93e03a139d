import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { STEPS, type JobPlan } from '@pelrin/core'
import type { JobBill as Bill } from '@pelrin/contract'
import { drawnAt } from '@pelrin/drawn'
import { textOf } from '../../testing/textOf.ts'
import { JobBill } from './JobBill.tsx'
import { StepPicture } from './StepPicture.tsx'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const part = (name: string, quantity: number, price: number | null) => ({ name, quantity, price })
const bill = (more: object = {}): Bill =>
  ({ minutes: 35, labour: 2450, parts: [part('Varrow Eleven S', 1, 3990)], total: 6440, ...more }) as unknown as Bill
const shown = (before: Bill | null, after: Bill | null): string =>
  textOf(renderToStaticMarkup(<JobBill before={before} after={after} />))

describe('what a job costs', () => {
  it('is told before it begins, in minutes, work, parts and all', () => {
    expect(shown(bill(), null)).toMatch(/35.*24\.50.*Varrow Eleven S.*39\.90.*64\.40/)
  })
  it('stands beside what it turned out to be, part by part, times how many', () => {
    const after = bill({ minutes: 50, labour: 3500, parts: [part('Varrow Eleven S', 1, 3990), part('Link', 2, 450)] })
    const said = shown(bill(), after)
    expect(said).toMatch(/35\s+50/)
    // It was not spoken of before.
    expect(said).toMatch(/2 × Link\s+–\s+£9\.00/)
  })
  it('has no sum where a price is not known, and does not take it for nothing', () => {
    const said = shown(null, bill({ parts: [part('Own link', 1, null)], total: null, labour: null }))
    expect(said).not.toContain('0.00')
    expect(said).toContain('Own link')
  })
  it('is nothing where nothing is known', () => {
    expect(shown(null, null)).toBe('')
  })
})

describe('what a step looks like', () => {
  const plan = { position: 'upright' } as unknown as JobPlan
  it('is drawn with a name of its own, or not at all', () => {
    const drawn = STEPS.map(({ id }) => renderToStaticMarkup(<StepPicture step={id} plan={plan} />)).filter(
      (markup) => markup !== '',
    )
    expect(drawn.length).toBeGreaterThan(30)
    for (const markup of drawn) {
      expect(markup).toContain('role="img"')
      expect(markup).not.toMatch(/aria-label="(jobs|parts|otherWear)\./)
    }
  })
  it('shows the ends this chain is cut to', () => {
    const ends = (one: string): string =>
      renderToStaticMarkup(<StepPicture step="check-ends" values={{ context: one }} plan={plan} />)
    expect(ends('both-inner')).not.toBe(ends('one-outer'))
  })
  it('has no derailleur where there is none, and stands as the bike does', () => {
    expect(drawnAt('route-rear', { context: 'sprocket' })).toBe('one-sprocket')
    expect(drawnAt('route-rear', { context: 'timing' })).toBeNull()
    const at = (position: string): string =>
      renderToStaticMarkup(<StepPicture step="route-pulleys" plan={{ position } as unknown as JobPlan} />)
    expect(new Set(['upright', 'upside-down', 'on-side'].map(at)).size).toBe(3)
  })
})
