import { useSearchParams } from 'react-router'

/**
 * What of a place stands in its address, so that it is there again over a reload, and can be sent to somebody.
 *
 * @returns it, null where the address says none; and a way to change it, at once
 */
export function useInAddress(name: string): [string | null, (value: string | null) => void] {
  const [search, setSearch] = useSearchParams()
  return [
    search.get(name),
    (value) =>
      setSearch(
        (before) => {
          if (value === null) before.delete(name)
          else before.set(name, value)
          return before
        },
        // The next key acts on what is shown then.
        { replace: true, flushSync: true },
      ),
  ]
}
