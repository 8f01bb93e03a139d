/**
 * Does a piece of work while nobody else does one of the same name: no other tab of the browser either, where the browser can say so. Over plain
 * HTTP from another machine it cannot; then two tabs may send the same write, which the server counts once by its key.
 */
const held = new Map<string, Promise<unknown>>()

/** Waits for its turn. */
export async function alone<T>(name: string, job: () => Promise<T>): Promise<T> {
  if (hasLocks()) return navigator.locks.request(name, () => job())
  const before = held.get(name) ?? Promise.resolve()
  const mine = before.then(job, job)
  held.set(name, mine)
  try {
    return await mine
  } finally {
    if (held.get(name) === mine) held.delete(name)
  }
}

/** Does it only if nobody is at it. @returns whether it was done */
export async function ifFree(name: string, job: () => Promise<unknown>): Promise<boolean> {
  if (hasLocks())
    return navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
      if (lock) await job()
      return lock !== null
    })
  if (held.has(name)) return false
  await alone(name, job)
  return true
}

/** Browsers have them at addresses they trust only; elsewhere there are none, or nothing. */
const hasLocks = (): boolean => (navigator as Partial<Navigator>).locks != null
