/** A chain on one of two entries of the same bike. Times in ms since 1970; `to` null: still on. */
export interface EnteredFitting {
  readonly id: string
  readonly chainId: string
  readonly from: number
  readonly to: number | null
  /** `fitted`: a new one was put on then. Else it was on already, or nobody knows since when. */
  readonly start: 'fitted' | 'stated' | 'unknown'
}

/** A fitting of the one bike the two are: on it from when, until when. */
export interface JoinedFitting {
  readonly id: string
  readonly chainId: string
  readonly from: number
  readonly to: number | null
  /** Entered a second time as these: what was recorded of them was of this one. */
  readonly sameAs: readonly string[]
}

/** The same new chain, entered twice, is rarely dated on the very same minute, ms. */
const SAME_FITTING_MS = 2 * 86_400_000

/**
 * One timeline of two entries of one bike. At any time one chain was on it: where both entries name one, it is the same entered twice, unless
 * the later one was put on new, which ended the earlier.
 */
export function joinTimelines(entered: readonly EnteredFitting[]): JoinedFitting[] {
  const joined: { id: string; chainId: string; from: number; to: number | null; sameAs: string[]; start: string }[] = []
  for (const { id, chainId, from, to, start } of [...entered].sort(
    (a, b) => a.from - b.from || (a.id < b.id ? -1 : 1),
  )) {
    const on = joined.at(-1)
    const isFree = on === undefined || (on.to !== null && on.to <= from)
    if (!isFree && (start !== 'fitted' || from - on.from < SAME_FITTING_MS)) {
      on.sameAs.push(id)
      on.to = earlier(on.to, to)
      continue
    }
    if (on && !isFree) on.to = from
    joined.push({ id, chainId, from, to, sameAs: [], start })
  }
  return joined.map(({ start: _, ...fitting }) => fitting)
}

const earlier = (a: number | null, b: number | null): number | null =>
  a === null ? b : b === null ? a : Math.min(a, b)

/** Which of the joined fittings something of a moment is about: the one that was on then, else the nearest. */
export function fittingAt(joined: readonly JoinedFitting[], at: number): JoinedFitting | undefined {
  const distance = ({ from, to }: JoinedFitting): number => Math.max(from - at, to === null ? 0 : at - to, 0)
  return [...joined].sort((a, b) => distance(a) - distance(b) || b.from - a.from)[0]
}
