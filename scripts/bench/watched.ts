/** What a piece of work took. */
export interface Went {
  readonly what: string
  readonly ms: number
  /** By how much this process grew at most meanwhile, MB. */
  readonly grew: number
}

/** Runs a piece of work with an eye on the clock and on how much memory this process holds. */
export async function watched(what: string, run: () => Promise<void>): Promise<Went> {
  const before = process.memoryUsage().rss
  let most = before
  const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 50)
  const began = performance.now()
  await run()
  clearInterval(watch)
  return { what, ms: performance.now() - began, grew: (most - before) / 1e6 }
}
