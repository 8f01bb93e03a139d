/**
 * Lets so many pieces of work be done at a time, one of each shop in turn: a shop that asks for a hundred waits for its own, and nobody else
 * does.
 */
export class FairQueue {
  private readonly waiting = new Map<string, (() => void)[]>()
  private running = 0

  /** @param most at a time */
  constructor(private readonly most: number) {}

  /** Does a piece of work when its shop's turn has come. @returns what it gives */
  async run<T>(shopId: string, job: () => Promise<T>): Promise<T> {
    if (this.running >= this.most) await new Promise<void>((turn) => this.line(shopId).push(turn))
    else this.running++
    try {
      return await job()
    } finally {
      this.next()
    }
  }

  private line(shopId: string): (() => void)[] {
    const line = this.waiting.get(shopId) ?? []
    this.waiting.set(shopId, line)
    return line
  }

  private next(): void {
    const [first] = this.waiting
    if (!first) {
      this.running--
      return
    }
    const [shopId, line] = first
    const turn = line.shift()
    // To the end of the row: every other shop that waits comes before its next.
    this.waiting.delete(shopId)
    if (line.length > 0) this.waiting.set(shopId, line)
    turn?.()
  }
}
