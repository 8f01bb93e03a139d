import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { INSTRUMENT_KINDS, type InstrumentKind } from '@pelrin/core'
import type { InstrumentHistory } from '@pelrin/contract'
import { textOf } from '../../testing/textOf.ts'
import { WhatItTells } from './WhatItTells.tsx'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const said = (kind: InstrumentKind, more: object = {}): string =>
  textOf(
    renderToStaticMarkup(
      <WhatItTells
        history={
          {
            instrument: {
              ...{ kind, uMm: null, u: null, bias: 0, biasU: 0, marks: null, material: null, rollerMm: null },
              ...{ seesRollerWear: false, ...more },
            },
            assumptions: {},
          } as unknown as InstrumentHistory
        }
      />,
    ),
  )

describe('whether an instrument is worth having', () => {
  it.each(INSTRUMENT_KINDS)('says of a %s what it costs, what it can and cannot see, and when it is worn', (kind) => {
    const words = said(kind, { marks: [0.5, 0.75] })
    for (const part of ['Costs', 'Sees', 'Cannot see', 'Worn or bent', 'Worth it for']) expect(words).toContain(part)
    expect(words).not.toMatch(/\{\{|gauges\.|undefined|NaN/)
  })
  it('says by its own record how small a change it shows, or at which marks it answers', () => {
    expect(said('digital', { u: 0.03 })).toContain('a change of 0.08 % for sure')
    expect(said('digital', { u: 0.06 })).toContain('a change of 0.17 % for sure')
    expect(said('drop-in', { marks: [0.5, 0.75] })).toContain('It answers at 0.50, 0.75 % and nowhere between')
    expect(said('drop-in', { marks: [0.5], seesRollerWear: true })).toContain('Worn rollers add in')
  })
})
