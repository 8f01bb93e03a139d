import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { CaliperDrawing } from './CaliperDrawing.tsx'
import { DigitalDrawing } from './DigitalDrawing.tsx'
import { DropInDrawing } from './DropInDrawing.tsx'
import { GraduatedDrawing } from './GraduatedDrawing.tsx'
import { HandDrawing } from './HandDrawing.tsx'
import { SwingArmDrawing } from './SwingArmDrawing.tsx'

beforeAll(async () => {
  await import('../../../messages/index.ts')
})

const label = (svg: string): string => /aria-label="([^"]*)"/.exec(svg)?.[1] ?? ''

describe('the caliper', () => {
  const drawn = (mode: 'pin-to-pin' | 'inside-rollers' | 'outside-rollers') =>
    renderToStaticMarkup(<CaliperDrawing lengthMm={127.4} pitches={10} mode={mode} rollerMm={7.75} colour="red" />)
  it('says what stands between its jaws in each mode, and what that is from pin to pin', () => {
    expect(label(drawn('pin-to-pin'))).toContain('127.40 mm between the jaws')
    expect(label(drawn('inside-rollers'))).toContain('119.65 mm between the jaws')
    expect(label(drawn('outside-rollers'))).toContain('135.15 mm between the jaws')
    for (const mode of ['inside-rollers', 'outside-rollers'] as const)
      expect(label(drawn(mode))).toContain('127.40 mm pin to pin')
  })
  it('draws one pin more than pitches, and one to either side', () => {
    expect([...drawn('pin-to-pin').matchAll(/<circle/g)]).toHaveLength(2 * 13)
  })
})

describe('the drop-in gauge', () => {
  it('tells what each mark does, and nothing before it is whole', () => {
    const drawn = (typed: string) =>
      label(renderToStaticMarkup(<DropInDrawing typed={typed} marks={[0.5, 0.75]} colour="red" />))
    expect(drawn('po')).toBe('0.50: in with a push, 0.75: stays out')
    expect(drawn('i')).toBe('A gauge, waiting for a reading')
    expect(drawn('oi')).toBe('A gauge, waiting for a reading')
  })
})

describe('gauges with a scale', () => {
  it('say where they stand, also past their end', () => {
    const arm = (value: number | null, past: boolean) =>
      label(renderToStaticMarkup(<SwingArmDrawing value={value} past={past} top={0.75} limit={0.5} colour="red" />))
    expect(arm(0.4, false)).toBe('The arm stops at 0.40 %')
    expect(arm(null, true)).toContain('over 0.75 %')
    expect(arm(null, false)).toContain('waiting')
    expect(label(renderToStaticMarkup(<GraduatedDrawing value={0.65} limit={0.5} colour="red" />))).toContain(
      '0.65 mark',
    )
    expect(label(renderToStaticMarkup(<DigitalDrawing value={0.62} colour="red" />))).toBe('It shows 0.62 %')
  })
  it('lie lower the more is worn: the arm falls', () => {
    const tip = (value: number): number => {
      const svg = renderToStaticMarkup(<SwingArmDrawing value={value} past={false} top={1} limit={0.5} colour="red" />)
      const [arm = ''] = /<line[^>]*stroke-width="15"[^>]*>/.exec(svg) ?? []
      return Number(/y2="([\d.]+)"/.exec(arm)?.[1])
    }
    expect(tip(0.8)).toBeGreaterThan(tip(0.2))
  })
})

describe('hands', () => {
  it('tell the signs noticed', () => {
    expect(label(renderToStaticMarkup(<HandDrawing noticed={['lifts-off-ring', 'bends-sideways']} />))).toBe(
      'lifts off the front ring, bends sideways easily',
    )
    expect(label(renderToStaticMarkup(<HandDrawing noticed={[]} />))).toBe('What hands can notice')
  })
})
