import { useEffect, useState } from 'react'

/** The clock, ms, read anew every so often. A tablet that slept reads the right time as it wakes. */
export function useNow(everyMs: number): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const read = (): void => setNow(Date.now())
    const every = setInterval(read, everyMs)
    document.addEventListener('visibilitychange', read)
    return () => {
      clearInterval(every)
      document.removeEventListener('visibilitychange', read)
    }
  }, [everyMs])
  return now
}
