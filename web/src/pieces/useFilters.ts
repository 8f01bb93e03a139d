import { useState } from 'react'
import { useSearchParams } from 'react-router'

/** What a list is narrowed down to, which stands in its address. */
export interface Filters {
  /** What is typed to look for. */
  readonly text: string
  readonly setText: (text: string) => void
  /** One of what a filter can be; undefined where the address says none, or none there is. */
  readonly among: <Option extends string>(name: string, options: readonly Option[]) => Option | undefined
  /** Narrows down by one filter, or no longer. */
  readonly set: (values: Readonly<Record<string, string | null>>) => void
  /** As it stands in an address. */
  readonly search: string
}

/** @param onChange called whenever what is listed becomes something else */
export function useFilters(onChange?: () => void): Filters {
  const [search, setSearch] = useSearchParams()
  const [text, setText] = useState(search.get('q') ?? '')
  const set = (values: Readonly<Record<string, string | null>>): void => {
    onChange?.()
    setSearch(
      (before) => {
        for (const [name, value] of Object.entries(values)) {
          if (value === null || value === '') before.delete(name)
          else before.set(name, value)
        }
        return before
      },
      { replace: true },
    )
  }
  return {
    text,
    setText: (typed) => {
      setText(typed)
      set({ q: typed })
    },
    among: (name, options) => options.find((option) => option === search.get(name)),
    set,
    search: search.toString(),
  }
}
