import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fillTemplate, quietFor, templateProblem } from '../index.ts'

const VALUES = { name: 'Mara Lisk', bikes: 'Courier', what: 'wax', day: '3 Dec', shop: 'Saltmarsh Row Cycles' }

describe('a reminder’s template', () => {
  it('says what it is told, in every place it is asked for', () => {
    expect(fillTemplate('{{name}}: {{ what }} for {{bikes}}, {{bikes}}. {{shop}}', VALUES)).toBe(
      'Mara Lisk: wax for Courier, Courier. Saltmarsh Row Cycles',
    )
  })
  it('takes what stands in a field as text, whatever it looks like', () => {
    fc.assert(
      fc.property(fc.string(), (name) => {
        expect(fillTemplate('>{{name}}<', { ...VALUES, name })).toBe(`>${name}<`)
      }),
    )
  })
  it('is refused empty, too long, with a field nobody knows, or a brace left over', () => {
    expect(templateProblem('Dear {{name}}')).toBeNull()
    expect(templateProblem('  ')).toEqual({ code: 'template-empty' })
    expect(templateProblem('x'.repeat(460))).toEqual({ code: 'template-long' })
    expect(templateProblem('Dear {{nmae}}')).toEqual({ code: 'template-field', field: 'nmae' })
    expect(templateProblem('Dear {name}}')).toEqual({ code: 'template-brace' })
  })
})

describe('quiet hours', () => {
  it('over the night wait until the morning, by day not at all', () => {
    const quiet = { from: 20, until: 8 }
    expect([12, 20, 23.5, 3, 7.75, 8].map((hour) => quietFor(hour, quiet))).toEqual([0, 12, 8.5, 5, 0.25, 0])
  })
  it('within a day wait until they are over, and the same hour twice is never', () => {
    expect([11, 13, 14].map((hour) => quietFor(hour, { from: 12, until: 14 }))).toEqual([0, 1, 0])
    expect(quietFor(3, { from: 8, until: 8 })).toBe(0)
  })
  it('always end outside quiet hours', () => {
    const hour = fc.integer({ min: 0, max: 23 })
    fc.assert(
      fc.property(hour, hour, fc.double({ min: 0, max: 23.99, noNaN: true }), (from, until, now) => {
        const waited = (now + quietFor(now, { from, until })) % 24
        expect(quietFor(Math.round(waited * 1e6) / 1e6, { from, until })).toBe(0)
      }),
    )
  })
})
