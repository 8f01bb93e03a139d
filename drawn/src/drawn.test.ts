import { describe, expect, it } from 'vitest'
import { PULLEY_GRADES, TOOTH_GRADES, type VerdictWord } from '@pelrin/core'
import {
  plateDrawing,
  pulleyDrawing,
  stepDrawing,
  STEP_DRAWINGS,
  teethDrawing,
  VERDICT_PLATE,
  wearRule,
  WEAR_SCALE,
  type Mark,
  type Shape,
} from './index.ts'

const mark = (value: number, worst = false): Mark => ({ value, over: null, under: null, u: 0.03, worst })
const rule = (marks: readonly Mark[], size: 'large' | 'small' = 'large') =>
  wearRule({ size, marks, limit: 0.5, watch: 0.4, numeral: (value) => value.toFixed(2) })
const texts = (shapes: readonly Shape[]): string[] =>
  shapes.flatMap((shape) => (shape.kind === 'text' ? [shape.text] : []))

describe('a wear rule', () => {
  it('has the same numerals whatever is on it, and none where it is small', () => {
    const numerals = ['0.00', '0.25', '0.50', '0.75', '1.00', '1.25']
    expect(texts(rule([]).shapes)).toEqual(numerals)
    expect(texts(rule([mark(0.3), mark(1.9, true)]).shapes)).toEqual(numerals)
    expect(texts(rule([mark(0.3, true)], 'small').shapes)).toEqual([])
  })
  it('draws the worst mark in the verdict’s ink where its value lies, all others in plain ink', () => {
    const { shapes } = rule([mark(0.3), mark(0.62, true)])
    const circles = shapes.filter((shape) => shape.kind === 'circle')
    const at = (value: number) => expect.closeTo(WEAR_SCALE.large(value), 9) as number
    expect(circles).toEqual([
      expect.objectContaining({ fill: 'ink', cx: at(0.3) }),
      expect.objectContaining({ fill: 'own', cx: at(0.62) }),
    ])
  })
  it('shows more the more was read, and a value beyond its end by an arrow there', () => {
    const count = (marks: readonly Mark[]) => rule(marks).shapes.length
    expect(count([mark(0.3)])).toBeGreaterThan(count([]))
    expect(count([mark(1.6)])).toBe(count([mark(1.1)]) + 1)
  })
})

it('every verdict has a plate of its own shape or ink', () => {
  const words = Object.keys(VERDICT_PLATE) as VerdictWord[]
  const looks = words.map((word) => JSON.stringify(VERDICT_PLATE[word]))
  // What has to be measured looks alike, whether again or at all.
  expect(new Set(looks).size).toBe(looks.length - 1)
  for (const word of words) expect(plateDrawing(VERDICT_PLATE[word].plate).shapes.length).toBeGreaterThan(0)
})

it('every grade of teeth has a shape of its own', () => {
  const outlines = TOOTH_GRADES.map((grade) => JSON.stringify(teethDrawing(grade).shapes))
  expect(new Set(outlines).size).toBe(TOOTH_GRADES.length)
})

it('every grade of a pulley has a shape of its own, inside its frame', () => {
  const outlines = PULLEY_GRADES.map((grade) => {
    const { width, height, shapes } = pulleyDrawing(grade)
    const [first] = shapes
    const numbers = first?.kind === 'path' ? first.d.match(/-?\d+(\.\d+)?/g)!.map(Number) : []
    expect(Math.min(...numbers)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...numbers)).toBeLessThanOrEqual(Math.max(width, height))
    return JSON.stringify(shapes)
  })
  expect(new Set(outlines).size).toBe(PULLEY_GRADES.length)
})

describe('what a step is shown by', () => {
  it('has no words in it, stays within its frame, and is like no other', () => {
    const seen = new Set<string>()
    for (const step of STEP_DRAWINGS) {
      const { width, height, shapes } = stepDrawing(step)
      expect(shapes.every(({ kind }) => kind !== 'text')).toBe(true)
      for (const shape of shapes)
        if (shape.kind === 'circle') {
          expect(shape.cx + shape.r).toBeLessThanOrEqual(width)
          expect(shape.cy + shape.r).toBeLessThanOrEqual(height)
        }
      seen.add(JSON.stringify(shapes))
    }
    expect(seen.size).toBe(STEP_DRAWINGS.length)
  })
})
