import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import type { SpotMark } from '@pelrin/contract'
import { Plate } from './Plate.tsx'
import { RunRule } from './RunRule.tsx'
import { WearRule } from './WearRule.tsx'

beforeAll(async () => {
  await import('../messages/index.ts')
})

const mark = (value: number, worst = false, u = 0.05): SpotMark => ({ value, over: null, under: null, u, worst })
const gauge = (over: number | null, under: number | null): SpotMark => ({
  value: null,
  over,
  under,
  u: 0.05,
  worst: true,
})
const draw = (marks: SpotMark[], limit = 0.5, size: 'large' | 'medium' | 'small' = 'large'): string =>
  renderToStaticMarkup(<WearRule size={size} marks={marks} limit={limit} colour="red" />)
const circles = (svg: string): number[] => [...svg.matchAll(/<circle cx="([\d.]+)"/g)].map((match) => Number(match[1]))

describe('the wear rule', () => {
  it('puts a spot where its elongation lies on the scale', () => {
    // 0 to 1.25 % over the blade without its ends: 640 − 2 × 18.
    const [x] = circles(draw([mark(0.625)]))
    expect(x).toBeCloseTo(18 + 0.5 * 604, 6)
    expect(circles(draw([mark(0)]))[0]).toBeCloseTo(18, 6)
    expect(circles(draw([mark(1.25)]))[0]).toBeCloseTo(622, 6)
  })
  it('cuts the notch at the limit', () => {
    for (const limit of [0.5, 0.75, 1]) {
      const at = 18 + (limit / 1.25) * 604
      expect(draw([], limit)).toContain(`L${at} 65`)
    }
  })
  it('holds a reading beyond its end at the end, and points on', () => {
    const svg = draw([mark(1.6, true)])
    expect(circles(svg)[0]).toBeCloseTo(622, 6)
    expect(svg).toMatch(/<path d="M629/)
    expect(draw([mark(1.2, true)])).not.toMatch(/<path d="M629/)
  })
  it('draws a gauge’s marks as what they leave open', () => {
    const between = draw([gauge(0.5, 0.75)])
    expect(circles(between)).toEqual([])
    const [, x, width] = /<rect x="([\d.]+)" width="([\d.]+)"/.exec(between) ?? []
    expect(Number(x)).toBeCloseTo(18 + 0.4 * 604, 6)
    expect(Number(width)).toBeCloseTo(0.2 * 604, 6)
  })
  it('keeps spots apart that would hide one another', () => {
    const heights = [
      ...draw([mark(0.4), mark(0.41), mark(0.42, true)]).matchAll(/<circle cx="[\d.]+" cy="([\d.]+)"/g),
    ].map((match) => match[1])
    expect(new Set(heights).size).toBe(3)
  })
  it('says in words what it shows, at every size', () => {
    for (const size of ['large', 'medium', 'small'] as const) {
      expect(draw([mark(0.42, true)], 0.5, size)).toContain('aria-label="Wear rule: 0.42 %; limit 0.50 %"')
      expect(draw([], 0.5, size)).toContain('aria-label="Wear rule, nothing measured; limit 0.50 %"')
    }
  })
  it('shows the worst mark only where it is small', () => {
    const svg = draw([mark(0.2), mark(0.6, true)], 0.5, 'small')
    expect(circles(svg)).toEqual([])
    expect(svg.match(/fill="red"/g)).toHaveLength(1)
  })
})

describe('the rule with the chain on it', () => {
  const drawn = (lengthMm: number | null, pitches: number | null, unit: 'mm' | 'in' = 'mm'): string =>
    renderToStaticMarkup(
      <RunRule lengthMm={lengthMm} pitches={pitches} unit={unit} denominator={32} limit={0.5} colour="red" />,
    )
  it('has a pin at both ends and at every pitch between', () => {
    const svg = drawn(204.6, 16)
    const pins = [...svg.matchAll(/<circle cx="([\d.]+)" cy="25"/g)].map((match) => Number(match[1]))
    expect(pins).toHaveLength(17)
    const gaps = pins.slice(1).map((pin, i) => pin - pins[i]!)
    for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0]!, 6)
  })
  it('shows new, limit and reading to one scale under the glass', () => {
    const svg = drawn(204.6, 16)
    const lines = [...svg.matchAll(/<line x1="([\d.]+)" x2="[\d.]+" y1="127"/g)].map((match) => Number(match[1]))
    const [, reading] =
      /<line x1="([\d.]+)" x2="[\d.]+" y1="\d+" y2="\d+" stroke="red" stroke-width="3"/.exec(svg) ?? []
    const [nominal = 0, limit = 0] = lines
    // 203.2 new, 204.216 at 0.5 %, 204.6 read: distances in the drawing are as those on the rule.
    expect((limit - nominal) / (Number(reading) - nominal)).toBeCloseTo(1.016 / 1.4, 6)
  })
  it('has ticks in the unit that was typed, with fractions in their lowest terms', () => {
    expect(drawn(307.18125, 24, 'in')).toContain('>12 1/8<')
    expect(drawn(307.18125, 24, 'in')).not.toMatch(/>\d+ [246]\/8</)
    expect(drawn(307.2, 24)).toContain('>307<')
  })
  it('waits for a length without a reading on it', () => {
    const svg = drawn(null, null)
    expect(svg).toContain('aria-label="A rule, waiting for a length"')
    expect(svg).not.toContain('<circle')
  })
  it('says in words what it shows', () => {
    expect(drawn(204.6, 16)).toContain('16 pitches on the rule: 204.6 mm; new 203.2 mm, limit 204.2 mm')
  })
})

describe('the plates', () => {
  const shapes = ['whole', 'notched', 'parted', 'dashed', 'toothed', 'bare'] as const
  it('differ in shape', () => {
    const drawings = shapes.map((shape) =>
      renderToStaticMarkup(<Plate shape={shape} colour="red" height={16} />).replace(
        /stroke="[^"]*"|fill="[^"]*"/g,
        '',
      ),
    )
    expect(new Set(drawings).size).toBe(shapes.length)
  })
  it('are silent beside their word, and speak where they stand alone', () => {
    expect(renderToStaticMarkup(<Plate shape="whole" colour="red" height={16} />)).toContain('aria-hidden="true"')
    expect(renderToStaticMarkup(<Plate shape="whole" colour="red" height={16} title="Keep riding" />)).toContain(
      'aria-label="Keep riding"',
    )
  })
})
