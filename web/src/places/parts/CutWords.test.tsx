import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import type { JudgedChain, JudgedJoint } from '@pelrin/contract'
import { CutWords } from './CutWords.tsx'
import { textOf } from '../../testing/textOf.ts'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const chain = (inBox: number, jointInBox: JudgedChain['part']['jointInBox']): JudgedChain['part'] =>
  ({ inBox, jointInBox }) as JudgedChain['part']
const link = { model: { kind: 'link' }, closings: 0 } as JudgedJoint['part']
const pin = { model: { kind: 'pin' }, closings: 0 } as JudgedJoint['part']
const said = (pitches: number, of: JudgedChain['part'], joint: JudgedJoint['part']): string =>
  textOf(renderToStaticMarkup(<CutWords pitches={pitches} chain={of} joint={joint} />))

describe('how a new chain is cut, in words', () => {
  it('for a link: an even piece off either end, both ends inner, the piece kept', () => {
    const text = said(110, chain(116, 'link'), link)
    expect(text).toContain('Cut 6 pitches off, from either end.')
    expect(text).toContain('An inner link at both ends before joining.')
    expect(text).toContain('Keep the 6 pitches cut off')
  })
  it('for a pin: off the inner end, so that the outer one keeps its pin', () => {
    const text = said(110, chain(114, 'preset-pin'), pin)
    expect(text).toContain('Cut 4 pitches off the inner end: the outer one keeps its pin.')
    expect(text).toContain('One inner end and one outer before joining.')
  })
  it('made for a pin and closed by a link: the outer plate comes off first', () => {
    const text = said(114, chain(114, 'preset-pin'), link)
    expect(text).toContain('Take the outer link off its end: its pin goes with it.')
    expect(text).not.toContain('Keep the')
  })
  it('that fits as it comes: nothing; on a long bike: how many boxes', () => {
    expect(said(116, chain(116, 'link'), link)).toContain('Nothing to cut: it fits as it comes.')
    expect(said(170, chain(116, 'link'), link)).toContain('2 boxes, and a joint for each.')
  })
  it('of an odd count says nothing: that is closed by a half link', () => {
    expect(said(101, chain(116, 'link'), link)).toBe('')
  })
})
