import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Sheet, SheetBlock } from '@pelrin/contract'
import { textOf } from '../../testing/textOf.ts'
import { SheetPage } from './SheetPage.tsx'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const sheet = (blocks: readonly object[], more: object = {}): Sheet =>
  ({
    kind: 'customer',
    title: 'Your chain',
    head: 'Saltmarsh Row Cycles',
    bike: 'Sand racer, tag 0470',
    blocks: blocks as SheetBlock[],
    ...more,
  }) as unknown as Sheet
const drawn = (blocks: readonly object[], more: object = {}): string =>
  renderToStaticMarkup(<SheetPage sheet={sheet(blocks, more)} />)

describe('a sheet for the customer', () => {
  it('says whose it is before anything else, under one heading', () => {
    const markup = drawn([{ kind: 'heading', text: 'What was found' }])
    expect(textOf(markup).trim()).toMatch(/^Saltmarsh Row Cycles Your chain Sand racer, tag 0470 What was found$/)
    expect(markup.match(/<h1/g)).toHaveLength(1)
    expect(markup.match(/<h2/g)).toHaveLength(1)
  })

  it('has the verdict in words beside its plate, so that it is read without colours too', () => {
    const markup = drawn([{ kind: 'verdict', word: 'change', text: 'Change the chain' }])
    expect(textOf(markup)).toContain('Change the chain')
    expect(markup).toContain('<svg')
  })

  it('draws the readings on the same rule as everywhere, with its caption', () => {
    const marks = [{ value: 0.62, over: null, under: null, u: 0.05, worst: true }]
    const rule = { kind: 'rule', word: 'closing-in', marks, limit: 0.75, watch: null, caption: 'Worst spot 0.62 %' }
    expect(drawn([rule])).toContain('Worst spot 0.62 %')
    // Where to look more often is on it where it is known.
    expect(drawn([{ ...rule, watch: 0.6 }])).not.toBe(drawn([rule]))
  })

  it('lists what there is to list, and a bill with its sum last', () => {
    const text = textOf(
      drawn([
        { kind: 'list', items: ['Wipe it after rain', 'Wax it by 4 Dec'] },
        {
          kind: 'bill',
          rows: [
            { name: 'Chain', value: '39.90' },
            { name: 'Together', value: '64.40' },
          ],
        },
      ]),
    )
    expect(text).toMatch(/Wipe it after rain.*Wax it by 4 Dec.*Chain 39\.90 Together 64\.40/)
  })

  it('shows teeth as new and done, each with its words', () => {
    const markup = drawn([{ kind: 'teeth', captions: { 'as-new': 'as it was', done: 'as yours is' } }])
    expect(markup.match(/<svg/g)?.length).toBeGreaterThanOrEqual(2)
    expect(textOf(markup)).toMatch(/as it was.*as yours is/)
  })

  it('is a card of a wallet’s size where it is one to carry', () => {
    expect(drawn([], { kind: 'carry-card' })).toContain('86mm')
    expect(drawn([])).not.toContain('86mm')
  })
})
