import { createContext, useContext } from 'react'
import type { Session } from '@pelrin/contract'

interface Surroundings {
  readonly session: Session
  /** Says something in passing. */
  readonly tell: (text: string) => void
}

export const SurroundingsContext = createContext<Surroundings | null>(null)

/** The session, and a way to say something in passing; for whatever is inside the shell. */
export function useSurroundings(): Surroundings {
  const found = useContext(SurroundingsContext)
  if (!found) throw new Error('outside of the shell')
  return found
}
