import type { Problem } from '@pelrin/contract'
import { del, entries, set, type UseStore } from 'idb-keyval'
import { ProblemError, send } from '../api/client.ts'
import { keptStore } from './keptStore.ts'
import { alone, ifFree } from './locks.ts'

/** A write on its way to the server. It is kept on the device until the server has it. */
export interface Waiting {
  /** Its idempotency key: sent any number of times, it is done once. */
  readonly key: string
  readonly method: string
  readonly path: string
  readonly params: Record<string, string>
  readonly body: unknown
  /** Who wrote it. The device may have changed hands before it is sent. */
  readonly personId: string
  readonly at: string
  /** What it is, for the list of what waits. */
  readonly title: string
  readonly bikeId: string
  /** Its place in the order, whatever the clock does; those of an earlier version have none and come first. */
  readonly order?: number
  /** How often in a row the server had a fault of its own over it. */
  readonly faults?: number
  /** Set when the server refused it, or failed over it again and again: nobody sends it again before a person has looked. */
  readonly refused?: Problem
}

type Settled = { readonly ok: true; readonly result: unknown } | { readonly ok: false; readonly problem: Problem }

const RETRY_MS = [1_000, 2_000, 5_000, 10_000, 20_000]
/** So often a fault over one write is waited out; then it is set aside, and the rest goes on. */
const MOST_FAULTS = 5
const LOCK = 'pelrin-outbox'

/**
 * Writes, in order, kept in IndexedDB until they are done. They outlive a reload, a dead battery and signing out.
 * One tab at a time sends them. Where the browser keeps nothing they are sent all the same, and lost with the page.
 */
export class Outbox {
  private waiting: readonly Waiting[] = []
  private readonly listeners = new Set<() => void>()
  private ended: () => void = () => undefined
  private readonly settling = new Map<string, (settled: Settled) => void>()
  private store: UseStore | null = null
  private attempt = 0
  private timer: ReturnType<typeof setTimeout> | undefined

  /** Takes up what an earlier visit left, and sends it. Never fails. */
  async open(): Promise<void> {
    try {
      this.store = await keptStore('pelrin-outbox', 'waiting')
      await this.load()
    } catch {
      this.store = null
    }
    window.addEventListener('online', () => void this.flush())
    void this.flush()
  }

  private signedOut = false
  /** Whether what waits waits for somebody to sign in. */
  readonly waitsForSignIn = (): boolean => this.signedOut

  /** Whether what waits outlives this page. */
  readonly keeps = (): boolean => this.store !== null

  /** Keeps a write on the device, then sends it. Resolves once it is kept; `settled` is its end, if it comes. */
  async put(given: Waiting): Promise<{ settled: Promise<Settled> }> {
    const settled = new Promise<Settled>((resolve) => {
      this.settling.set(given.key, resolve)
    })
    const write = { ...given, order: Math.max(0, ...this.waiting.map(({ order = 0 }) => order)) + 1 }
    await this.keep(write)
    this.change([...this.waiting.filter((other) => other.key !== write.key), write])
    this.attempt = 0
    void this.flush()
    return { settled }
  }

  async drop(key: string): Promise<void> {
    if (this.store) await del(key, this.store).catch(() => this.forsake())
    this.change(this.waiting.filter((write) => write.key !== key))
  }

  /** Sends a write that was set aside once more, after everything else. */
  async again(key: string): Promise<void> {
    const write = this.waiting.find((one) => one.key === key)
    if (!write) return
    const { refused: _, faults: __, ...rest } = write
    await this.put(rest)
  }

  /** Writes it down on the device. With its storage full it stays in memory, which the screen says. */
  private async keep(write: Waiting): Promise<void> {
    if (this.store) await set(write.key, write, this.store).catch(() => this.forsake())
  }

  private forsake(): void {
    this.store = null
    this.change(this.waiting)
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
    }
  }

  /** Whom to tell each time the server has done a write, or refused it: what it says of anything else may be new. */
  onEnd(tell: () => void): void {
    this.ended = tell
  }

  readonly list = (): readonly Waiting[] => this.waiting

  /** Sends what waits, oldest first, until one cannot be sent. */
  async flush(): Promise<void> {
    clearTimeout(this.timer)
    const done = await ifFree(LOCK, () => this.sendAll())
    if (!done) this.later()
  }

  /**
   * Sends everything that waits and comes back when it is through: what is written next may rest on it.
   *
   * @returns false where the server is away; what waits is kept and sent later
   */
  sendNow(): Promise<boolean> {
    return alone(LOCK, () => this.sendAll())
  }

  private async sendAll(): Promise<boolean> {
    await this.load()
    for (const write of this.waiting.filter((one) => one.refused === undefined)) {
      if (!(await this.sendOne(write))) {
        this.change(this.waiting)
        this.later()
        return false
      }
    }
    this.attempt = 0
    return true
  }

  /** @returns false when the server is away */
  private async sendOne(write: Waiting): Promise<boolean> {
    try {
      const result = await send(write.method, write.path, {
        params: write.params,
        body: write.body,
        key: write.key,
        personId: write.personId,
        quiet: true,
      })
      this.signedOut = false
      await this.drop(write.key)
      this.settle(write.key, { ok: true, result })
      return true
    } catch (error) {
      if (!(error instanceof ProblemError)) return false
      const { problem } = error
      // Signed out, asked too often, or no room on the other side: it waits for better days.
      if (problem.status === 401) this.signedOut = true
      if (problem.status === 401 || problem.status === 429 || problem.status === 507) return false
      const faults = problem.status >= 500 ? (write.faults ?? 0) + 1 : 0
      if (faults > 0 && faults < MOST_FAULTS) {
        await this.note({ ...write, faults })
        return false
      }
      await this.note({ ...write, refused: problem })
      this.settle(write.key, { ok: false, problem })
      return true
    }
  }

  private async note(write: Waiting): Promise<void> {
    await this.keep(write)
    this.change(this.waiting.map((other) => (other.key === write.key ? write : other)))
  }

  private later(): void {
    const delay = RETRY_MS[Math.min(this.attempt++, RETRY_MS.length - 1)]
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.flush(), delay)
  }

  private settle(key: string, settled: Settled): void {
    this.settling.get(key)?.(settled)
    this.settling.delete(key)
    this.ended()
  }

  private async load(): Promise<void> {
    if (!this.store) return
    const kept = (await entries<string, Waiting>(this.store)).map(([, write]) => write)
    this.change(kept.sort((a, b) => (a.order ?? 0) - (b.order ?? 0) || (a.at < b.at ? -1 : 1)))
  }

  private change(waiting: readonly Waiting[]): void {
    this.waiting = waiting
    for (const listener of this.listeners) listener()
  }
}

export const outbox = new Outbox()
