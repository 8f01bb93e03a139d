import type { InstrumentKind } from './instrumentKinds.ts'

/** How a mark of a gauge behaved at a spot. Forced in is no reading, so it is none of these. */
export type MarkState = 'out' | 'push' | 'in'

/** A mark with what it did. */
export interface MarkSeen {
  /** %. */
  readonly mark: number
  readonly state: MarkState
}

export type MarksEntryProblem =
  'marks-letters' | 'marks-unfinished' | 'marks-contradict' | 'marks-too-many-letters' | 'gauge-step-unknown'

export type MarksResult =
  | {
      readonly ok: true
      readonly seen: readonly MarkSeen[]
      /** The highest mark that went in and the lowest that stayed out, %. */
      readonly over?: number
      readonly under?: number
      /** The highest that went in with a push only, %: about there the chain is. */
      readonly pushed?: number
    }
  | { readonly ok: false; readonly problem: MarksEntryProblem }

/** One letter a mark, lowest mark first: stays out, goes in with a push, drops in. */
export const MARK_LETTERS: Readonly<Record<MarkState, string>> = { out: 'o', push: 'p', in: 'i' }

const STATE_OF: ReadonlyMap<string, MarkState> = new Map(
  (Object.keys(MARK_LETTERS) as MarkState[]).map((state) => [MARK_LETTERS[state], state]),
)

/** Writes what marks did so that {@link parseMarks} reads it back. */
export const formatMarks = (states: readonly MarkState[]): string => states.map((state) => MARK_LETTERS[state]).join('')

/**
 * Reads what a gauge's marks did: `io` is "the lower drops in, the upper stays out", `p` a push.
 *
 * @param marks the gauge's marks, ascending, %
 * @returns the interval the spot lies in, or why there is none: a mark cannot go in where a lower one stays out
 */
export function parseMarks(text: string, marks: readonly number[]): MarksResult {
  const letters = text.toLowerCase().match(/[^\s,/-]/gu) ?? []
  const states = letters.map((letter) => STATE_OF.get(letter))
  if (states.some((state) => state === undefined)) return { ok: false, problem: 'marks-letters' }
  if (states.length > marks.length) return { ok: false, problem: 'marks-too-many-letters' }
  // Where the lowest mark stays out, every other one does.
  const told = states as MarkState[]
  const filled = told.length === 1 && told[0] === 'out' ? marks.map((): MarkState => 'out') : told
  if (filled.length < marks.length) return { ok: false, problem: 'marks-unfinished' }
  const seen = marks.map((mark, i) => ({ mark, state: filled[i]! }))
  const over = seen.filter(({ state }) => state !== 'out').at(-1)?.mark
  const pushed = seen.filter(({ state }) => state === 'push').at(-1)?.mark
  const under = seen.find(({ state }) => state === 'out')?.mark
  if (over !== undefined && under !== undefined && over > under) return { ok: false, problem: 'marks-contradict' }
  return {
    ok: true,
    seen,
    ...(over === undefined ? {} : { over }),
    ...(under === undefined ? {} : { under }),
    ...(pushed === undefined || pushed !== over ? {} : { pushed }),
  }
}

/**
 * What a gauge's marks did, as it is typed for its kind. A two-pin gauge is stepped up from 0 until it no longer goes in:
 * the last step that did is typed, or 0 where none did; every other gauge by a letter a mark ({@link parseMarks}).
 */
export function marksTyped(kind: InstrumentKind, text: string, marks: readonly number[]): MarksResult {
  if (kind !== 'two-pin') return parseMarks(text, marks)
  const typed = text.trim().replace(/\s*%$/, '').replace(',', '.')
  const step = typed === '' ? NaN : Number(typed)
  const last = marks.findIndex((mark) => Math.abs(mark - step) < 1e-6)
  if (last < 0 && step !== 0) return { ok: false, problem: 'gauge-step-unknown' }
  return parseMarks(formatMarks(marks.map((_, i) => (i <= last ? 'in' : 'out'))), marks)
}
