import { del, entries, set, type UseStore } from 'idb-keyval'
import { keptStore } from '../outbox/keptStore.ts'

/** After so long without a key press what was typed is written down, ms. */
const PAUSE_MS = 150
/** Where an older version kept them. */
const OLD_KEYS = 'mend '

/**
 * What is being typed and not yet sent, kept on the device: on the disk at each pause, so that neither a reload nor a dead battery takes it. All of
 * it is in memory too, since a form that opens does not wait. Where the browser keeps nothing, forms work all the same.
 */
export class Drafts {
  private readonly all = new Map<string, unknown>()
  private readonly unwritten = new Map<string, ReturnType<typeof setTimeout>>()
  private store: UseStore | null = null

  /** Takes up what an earlier visit left. Never fails. */
  async open(): Promise<void> {
    try {
      this.store = await keptStore('pelrin-drafts', 'drafts')
      for (const [key, draft] of await entries<string, unknown>(this.store)) this.all.set(key, draft)
      this.takeUpOld()
    } catch {
      this.store = null
    }
    // A page that goes away says nothing more: what was typed in the last pause is written now.
    window.addEventListener('pagehide', () => this.writeAll())
    document.addEventListener('visibilitychange', () => this.writeAll())
  }

  /** Whether what is typed outlives this page. */
  readonly keeps = (): boolean => this.store !== null

  /** What was typed under a key, as it was kept: whoever asks checks it. */
  get(key: string): unknown {
    return this.all.get(key)
  }

  put(key: string, draft: unknown): void {
    this.all.set(key, draft)
    clearTimeout(this.unwritten.get(key))
    this.unwritten.set(
      key,
      setTimeout(() => this.write(key), PAUSE_MS),
    )
  }

  remove(key: string): void {
    this.all.delete(key)
    clearTimeout(this.unwritten.get(key))
    this.unwritten.delete(key)
    if (this.store) del(key, this.store).catch(() => (this.store = null))
  }

  private writeAll(): void {
    for (const key of [...this.unwritten.keys()]) this.write(key)
  }

  private write(key: string): void {
    clearTimeout(this.unwritten.get(key))
    this.unwritten.delete(key)
    if (this.store && this.all.has(key)) set(key, this.all.get(key), this.store).catch(() => (this.store = null))
  }

  private takeUpOld(): void {
    for (const key of Object.keys(localStorage).filter((one) => one.startsWith(OLD_KEYS))) {
      try {
        if (!this.all.has(key)) this.put(key, JSON.parse(localStorage.getItem(key) ?? 'null'))
      } catch {
        // What cannot be read was never a draft.
      }
      localStorage.removeItem(key)
    }
  }
}

export const drafts = new Drafts()
