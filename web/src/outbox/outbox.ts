import type { Problem } from '@pelrin/contract'
import { createStore, del, entries, set, type UseStore } from 'idb-keyval'
import { AwayError, ProblemError, send } from '../api/client.ts'

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
  /** Set when the server refused it: nobody sends it again before a person has looked. */
  readonly refused?: Problem
}

type Settled = { readonly ok: true; readonly result: unknown } | { readonly ok: false; readonly problem: Problem }

const RETRY_MS = [1_000, 2_000, 5_000, 10_000, 20_000]

/**
 * Writes, in order, kept in IndexedDB until they are done. They outlive a reload, a dead battery and signing out.
 * One tab at a time sends them.
 */
export class Outbox {
  private waiting: readonly Waiting[] = []
  private readonly listeners = new Set<() => void>()
  private ended: () => void = () => undefined
  private readonly settling = new Map<string, (settled: Settled) => void>()
  private store: UseStore | null = null
  private attempt = 0
  private timer: ReturnType<typeof setTimeout> | undefined

  /** Takes up what an earlier visit left, and sends it. */
  async open(): Promise<void> {
    this.store = createStore('pelrin-outbox', 'waiting')
    await this.load()
    window.addEventListener('online', () => void this.flush())
    void this.flush()
  }

  /** Keeps a write on the device, then sends it. Resolves once it is kept; `settled` is its end, if it comes. */
  async put(write: Waiting): Promise<{ settled: Promise<Settled> }> {
    const settled = new Promise<Settled>((resolve) => {
      this.settling.set(write.key, resolve)
    })
    if (this.store) await set(write.key, write, this.store)
    this.change([...this.waiting.filter((other) => other.key !== write.key), write])
    this.attempt = 0
    void this.flush()
    return { settled }
  }

  async drop(key: string): Promise<void> {
    if (this.store) await del(key, this.store)
    this.change(this.waiting.filter((write) => write.key !== key))
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
    await navigator.locks.request('pelrin-outbox', { ifAvailable: true }, async (lock) => {
      if (lock) await this.sendAll()
      else this.later()
    })
  }

  /**
   * Sends everything that waits and comes back when it is through: what is written next may rest on it.
   *
   * @returns false where the server is away; what waits is kept and sent later
   */
  sendNow(): Promise<boolean> {
    return navigator.locks.request('pelrin-outbox', () => this.sendAll())
  }

  private async sendAll(): Promise<boolean> {
    await this.load()
    for (const write of this.waiting.filter((one) => one.refused === undefined)) {
      if (!(await this.sendOne(write))) {
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
      })
      await this.drop(write.key)
      this.settle(write.key, { ok: true, result })
      return true
    } catch (error) {
      if (error instanceof AwayError) return false
      if (!(error instanceof ProblemError)) throw error
      const { problem } = error
      // Signed out, or a fault on the other side: it waits for better days.
      if (problem.status === 401 || problem.status >= 500) return false
      const refused = { ...write, refused: problem }
      if (this.store) await set(write.key, refused, this.store)
      this.change(this.waiting.map((other) => (other.key === write.key ? refused : other)))
      this.settle(write.key, { ok: false, problem })
      return true
    }
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
    this.change(kept.sort((a, b) => (a.at < b.at ? -1 : 1)))
  }

  private change(waiting: readonly Waiting[]): void {
    this.waiting = waiting
    for (const listener of this.listeners) listener()
  }
}

export const outbox = new Outbox()
