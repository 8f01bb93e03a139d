import * as v from 'valibot'
import { del, entries, set, type UseStore } from 'idb-keyval'
import { keptStore } from '../outbox/keptStore.ts'

/** No later than this after a key press what was typed is written down, ms. */
const SOON_MS = 120
/** Where a page that goes away leaves what was typed last: its other writes may not come to their end. */
const LEFT = 'pelrin-draft-left '
/** What it leaves of a draft that was sent or thrown away. */
const GONE = ''
/** Where an older version kept them. */
const OLD_KEYS = 'mend '

/**
 * What is being typed and not yet sent, kept on the device: on the disk at each pause, so that neither a reload nor a dead battery takes it. All of
 * it is in memory too, since a form that opens does not wait. Where the browser keeps nothing, forms work all the same.
 */
export class Drafts {
  private readonly all = new Map<string, unknown>()
  private readonly unwritten = new Map<string, ReturnType<typeof setTimeout>>()
  /** What was begun to be written down and is not known to be on the disk: the end of a page breaks it off. */
  private readonly unsure = new Map<string, Promise<void>>()
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
    window.addEventListener('pagehide', () => this.leave())
    document.addEventListener('visibilitychange', () => this.writeAll())
  }

  /** Whether what is typed outlives this page. */
  readonly keeps = (): boolean => this.store !== null

  /** What was typed under a key, where it still is what a schema says: an older version may have kept it otherwise. */
  read<S extends v.GenericSchema>(key: string, schema: S): v.InferOutput<S> | null {
    const read = v.safeParse(schema, this.all.get(key))
    return read.success ? read.output : null
  }

  put(key: string, draft: unknown): void {
    this.all.set(key, draft)
    // Who types without a pause is written down all the same.
    if (!this.unwritten.has(key))
      this.unwritten.set(
        key,
        setTimeout(() => this.write(key), SOON_MS),
      )
  }

  remove(key: string): void {
    this.all.delete(key)
    clearTimeout(this.unwritten.get(key))
    this.unwritten.delete(key)
    if (this.store) this.follow(key, del(key, this.store))
  }

  /** A page that goes away says nothing more: what was typed last is left where it is written at once. */
  private leave(): void {
    try {
      for (const key of new Set([...this.unwritten.keys(), ...this.unsure.keys()]))
        localStorage.setItem(LEFT + key, this.all.has(key) ? JSON.stringify(this.all.get(key)) : GONE)
    } catch {
      // No room, or not allowed: the other way is still tried.
    }
    this.writeAll()
  }

  private writeAll(): void {
    for (const key of [...this.unwritten.keys()]) this.write(key)
  }

  private write(key: string): void {
    clearTimeout(this.unwritten.get(key))
    this.unwritten.delete(key)
    if (this.store && this.all.has(key)) this.follow(key, set(key, this.all.get(key), this.store))
  }

  /** What fails stays unsure, so that it is left at the end. */
  private follow(key: string, writing: Promise<void>): void {
    this.unsure.set(key, writing)
    writing.then(
      () => {
        if (this.unsure.get(key) !== writing) return
        this.unsure.delete(key)
        // A page that came back has outlived what it left.
        localStorage.removeItem(LEFT + key)
      },
      () => (this.store = null),
    )
  }

  private takeUpOld(): void {
    for (const key of Object.keys(localStorage).filter((one) => one.startsWith(OLD_KEYS) || one.startsWith(LEFT))) {
      const left = key.startsWith(LEFT)
      try {
        // What was left is newer than what is written down; what an older version kept is not.
        const of = left ? key.slice(LEFT.length) : key
        const kept = localStorage.getItem(key) ?? GONE
        if (kept === GONE) this.remove(of)
        else if (left || !this.all.has(of)) this.put(of, JSON.parse(kept))
      } catch {
        // What cannot be read was never a draft.
      }
      localStorage.removeItem(key)
    }
  }
}

export const drafts = new Drafts()
