import { useSyncExternalStore } from 'react'
import { outbox, type Waiting } from './outbox.ts'

/** What waits to be sent, as it changes. */
export function useOutbox(): readonly Waiting[] {
  return useSyncExternalStore(outbox.subscribe, outbox.list)
}
