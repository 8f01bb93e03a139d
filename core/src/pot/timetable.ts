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
    const over = this.booked.filter((one) => one.from < to && one.to > from)
    if (over.reduce((sum, one) => sum + one.count, 0) + count <= this.capacity) return null
    // Use only rises where something begins: each beginning within the span is looked at.
    for (const at of [from, ...over.map((one) => one.from).filter((one) => one > from)]) {
      const there = over.filter((one) => one.from <= at && one.to > at)
      if (there.reduce((sum, one) => sum + one.count, 0) + count > this.capacity)
        return Math.min(...there.map((one) => one.to))
    }
    return null
  }
}
