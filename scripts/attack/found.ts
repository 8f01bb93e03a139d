/** What came of an attack. */
export interface Found {
  readonly what: string
  /** Requests sent, or things done. */
  readonly done: number
  /** What went wrong, in words; nothing is what is wanted. */
  readonly faults: readonly string[]
  /** A figure beside, in words. */
  readonly also?: string
}

/** Counts answers by what they may not be. */
export class Answers {
  done = 0
  busy = 0
  slowest = 0
  readonly faults: string[] = []

  async take(what: string, ask: () => Promise<Response>): Promise<void> {
    const started = Date.now()
    this.done++
    try {
      const response = await ask()
      await response.arrayBuffer()
      if (response.status === 503) this.busy++
      else if (response.status >= 500) this.faults.push(`${what}: ${response.status}`)
    } catch (error) {
      this.faults.push(`${what}: ${(error as Error).message}`)
    }
    this.slowest = Math.max(this.slowest, Date.now() - started)
  }

  found(what: string): Found {
    return {
      what,
      done: this.done,
      faults: this.faults,
      also: `slowest ${this.slowest} ms, told to come again ${this.busy}`,
    }
  }
}
