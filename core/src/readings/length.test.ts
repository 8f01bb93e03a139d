import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatLength, parseLength, type LengthProblem } from './index.ts'

const mm = (text: string): number => {
  const result = parseLength(text)
  if (!result.ok) throw new Error(`${text}: ${result.problem}`)
  return result.length.lengthMm
}

describe('reading a length as a mechanic writes it', () => {
  it.each([
    ['204.6', 204.6],
    ['204,6', 204.6],
    [' 204.6 mm ', 204.6],
    ['20.46cm', 204.6],
    ['8.05in', 204.47],
    ['8.05', 204.47],
    ['12 3/32', 307.18125],
    ['12-3/32', 307.18125],
    ['12 3/32"', 307.18125],
    ['12½', 317.5],
    ['12in +3/32', 307.18125],
    ['12in+3/32in', 307.18125],
    ['12 + 3/32', 307.18125],
    ['12" + .05', 306.07],
    ['12in -1/64', 304.403125],
    ['300+1.4', 301.4],
    ['300mm + 1,4', 301.4],
    ['30cm + 1.4', 301.4],
    ['3/4', 19.05],
  ])('%s is %d mm', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 6))

  it.each<[string, LengthProblem]>([
    ['', 'length-empty'],
    ['abc', 'length-letters'],
    ['204.6x', 'length-letters'],
    ['204.6.1', 'length-two-decimals'],
    ['1.204,6', 'length-two-decimals'],
    ['-204', 'length-negative'],
    ['0', 'length-zero'],
    ['0.0 mm', 'length-zero'],
    ['12 3/0', 'length-fraction-zero'],
    ['12 33/32', 'length-fraction-improper'],
    ['10000', 'length-too-long'],
    ['203.2in', 'length-too-long'],
    ['12 3/', 'length-unfinished'],
    ['12in +', 'length-unfinished'],
    ['12in + 2mm', 'length-mixed-units'],
  ])('%s is refused: %s', (text, problem) => expect(parseLength(text)).toEqual({ ok: false, problem }))

  it('keeps how it was written: unit, mark and steps', () => {
    const result = parseLength('12in +3/32')
    expect(result.ok && result.length).toMatchObject({ unit: 'in', denominator: 32, unitAssumed: false })
    expect(result.ok && result.length.pastMarkMm).toBeCloseTo(304.8, 9)
    const bare = parseLength('204.6')
    expect(bare.ok && bare.length).toMatchObject({ unit: 'mm', unitAssumed: true, pastMarkMm: null })
  })

  it('reads back what it writes, in every form', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 610, max: 39_999 }).map((tenths) => tenths / 10),
        fc.constantFrom<'.' | ','>('.', ','),
        (length, decimalSign) => {
          expect(mm(formatLength(length, { unit: 'mm', decimalSign }))).toBeCloseTo(length, 9)
        },
      ),
    )
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 150 * 16 }), fc.constantFrom(16, 32, 64), (steps, denominator) => {
        const length = (steps / denominator) * 25.4
        expect(mm(formatLength(length, { unit: 'in', denominator }))).toBeCloseTo(length, 9)
      }),
    )
  })

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        const result = parseLength(text)
        if (result.ok) expect(result.length.lengthMm).toBeGreaterThan(0)
      }),
      { numRuns: 2000 },
    )
    fc.assert(
      fc.property(fc.stringMatching(/^[0-9 /.,+\-inmc"½]{0,14}$/), (text) => {
        parseLength(text)
      }),
      { numRuns: 5000 },
    )
  })
})
