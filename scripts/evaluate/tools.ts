import { DEFAULTS, MM_PER_INCH, PITCH_MM } from '@pelrin/core'
import type { Chance } from '../../server/src/demo/random.ts'

/** What a chain was read with, and what that shows of its wear. */
export const TOOLS = ['fine', 'inch-rule', 'half-mm-rule', 'three-marks', 'two-marks'] as const
export type ToolName = (typeof TOOLS)[number]

/** What one spot read as, as the product keeps it. */
export type Shown =
  | { readonly value: number; readonly u: number }
  | { readonly over?: number; readonly under?: number; readonly u: number }

export interface Tool {
  /** Spots of one round. */
  readonly spots: number
  /** What a reading covers; null for a gauge. */
  readonly pitches: number | null
  /** Of the eight places round a chain, how many lie under one reading: it shows their mean. */
  readonly covers: number
  readonly kind: 'steel-rule' | 'drop-in'
  /** @param wear true elongation, %; `bias` what the tool reads too low */
  read(chance: Chance, wear: number, bias?: number): Shown
}

const FINE_U = 0.05
const LAW_U = 0.02
const STRAY = 0.03

/** As the model has it: an error of u, five times that now and then, and the law itself off by a little. */
const scatter = (chance: Chance, u: number): number =>
  chance.normal(0, Math.hypot(chance.happens(STRAY) ? 5 * u : u, LAW_U))

/** A rule read to its nearest mark. What is believed of it says nothing of the rounding. */
function rule(pitches: number, stepMm: number): Tool {
  const spanMm = pitches * PITCH_MM
  const u = (100 * DEFAULTS.measuring.steelRuleUMm) / spanMm
  return {
    spots: 1,
    pitches,
    covers: 4,
    kind: 'steel-rule',
    read: (chance, wear) => {
      const lengthMm = spanMm * (1 + (wear + scatter(chance, u)) / 100)
      return { value: 100 * ((Math.round(lengthMm / stepMm) * stepMm) / spanMm - 1), u }
    },
  }
}

/** A gauge that says between which of its marks a chain is. */
function gauge(marks: readonly number[], spots: number): Tool {
  return {
    spots,
    pitches: null,
    covers: 1,
    kind: 'drop-in',
    read: (chance, wear, bias = 0) => {
      const value = wear + scatter(chance, FINE_U) - bias
      const over = marks.filter((mark) => value > mark).at(-1)
      const under = marks.find((mark) => value <= mark)
      return { u: FINE_U, ...(over === undefined ? {} : { over }), ...(under === undefined ? {} : { under }) }
    },
  }
}

/** Three short runs on a fine scale; rules of two feet in 32nds and of 600 mm in halves; gauges of three marks and of two. */
export const toolNamed: Readonly<Record<ToolName, Tool>> = {
  fine: {
    spots: 3,
    pitches: 16,
    covers: 1,
    kind: 'steel-rule',
    read: (chance, wear, bias = 0) => ({ value: wear + scatter(chance, FINE_U) - bias, u: FINE_U }),
  },
  'inch-rule': rule(48, MM_PER_INCH / 32),
  'half-mm-rule': rule(46, 0.5),
  'three-marks': gauge([0.25, 0.5, 0.75], 1),
  'two-marks': gauge([0.5, 0.75], 3),
}
