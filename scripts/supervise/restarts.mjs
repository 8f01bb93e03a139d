// Plain JavaScript: start.mjs uses it before any package is installed.

const FIRST_MS = 200
const LONGEST_MS = 5_000
const WINDOW_MS = 60_000
const MOST = 10

/**
 * When something that ended by itself is started again: at once the first time, then after longer and longer; and not any more once it has
 * ended ten times within a minute, since then starting it again mends nothing.
 */
export class Restarts {
  /** @type {number[]} */
  #ended = []

  /**
   * Something ended.
   *
   * @param {number} now ms
   * @returns {number | null} ms to wait before it is started again; null: it stays down
   */
  next(now) {
    this.#ended = [...this.#ended.filter((at) => now - at < WINDOW_MS), now]
    const times = this.#ended.length
    return times > MOST ? null : Math.min(LONGEST_MS, FIRST_MS * 2 ** (times - 1))
  }
}
