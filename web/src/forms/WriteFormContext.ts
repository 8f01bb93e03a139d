import { createContext } from 'react'
import { get, type FieldErrors } from 'react-hook-form'

/** What the fields of a form know of it beside what is typed. */
export interface AroundFields {
  /** What somebody else has written meanwhile, by field. */
  readonly newer: Readonly<Record<string, unknown>> | null
  /** A field is on the screen: what stands in its way is said there and not below. Gives what takes that back. */
  readonly show: (name: string) => () => void
  readonly shown: ReadonlySet<string>
  /** Fields are as low as they can be, and keep no room for what is said at them. */
  readonly dense: boolean
}

export const WriteFormContext = createContext<AroundFields>({
  newer: null,
  show: () => () => undefined,
  shown: new Set<string>(),
  dense: false,
})

/** The first sentence anywhere at a path: of a list, what is wrong with one of its items is said at the list. */
export function sentenceAt(errors: FieldErrors, path: string): string | undefined {
  const first = (at: unknown): string | undefined => {
    if (typeof at !== 'object' || at === null) return undefined
    const { message } = at as { message?: unknown }
    if (typeof message === 'string') return message
    for (const [key, below] of Object.entries(at)) {
      const said = key === 'ref' ? undefined : first(below)
      if (said !== undefined) return said
    }
    return undefined
  }
  return first(get(errors, path))
}
