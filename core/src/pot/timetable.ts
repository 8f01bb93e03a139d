import type { Span } from './potTypes.ts'

/** A resource of which so many can be used at once, and what is booked on it. */
export class Timetable {
  private readonly booked: (Span & { readonly count: number })[] = []

  constructor(readonly capacity: number) {}

  /**
   * The first minute, not before one asked for, from which so many are free for so long.
   *
   * @throws RangeError for more than there are
   */
  firstFree(from: number, minutes: number, count = 1): number {
    if (count > this.capacity) throw new RangeError('that many are never free at once')
    let at = from
    for (;;) {
      const blocked = this.blockedUntil(at, minutes, count)
      if (blocked === null) return at
      at = blocked
    }
  }

  book(from: number, minutes: number, count = 1): void {
    if (minutes > 0) this.booked.push({ from, to: from + minutes, count })
  }

  /** Forgets what was booked last. */
  unbook(length: number): void {
    this.booked.length = length
  }

  get length(): number {
    return this.booked.length
  }

  /** When the first thing in the way ends; null where nothing is. */
  private blockedUntil(from: number, minutes: number, count: number): number | null {
    // What takes no time needs nobody.
    if (minutes === 0) return null
    const to = from + minutes
    let inTheWay = count
    for (const one of this.booked) if (one.from < to && one.to > from) inTheWay += one.count
    if (inTheWay <= this.capacity) return null
    // Use only rises where something begins: each beginning within the span is looked at.
    let blocked = this.fullAt(from, count)
    for (const one of this.booked) {
      if (one.from <= from || one.from >= to) continue
      const until = this.fullAt(one.from, count)
      if (until !== null && (blocked === null || one.from < blocked.at)) blocked = { at: one.from, until: until.until }
    }
    return blocked?.until ?? null
  }

  /** Until when too little is free for so many, where that is so at a minute. */
  private fullAt(at: number, count: number): { at: number; until: number } | null {
    let used = count
    let until = Infinity
    for (const one of this.booked)
      if (one.from <= at && one.to > at) {
        used += one.count
        until = Math.min(until, one.to)
      }
    return used > this.capacity ? { at, until } : null
  }
}
