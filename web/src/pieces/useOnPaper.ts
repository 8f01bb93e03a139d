import { useSyncExternalStore } from 'react'

const onPaper = (): MediaQueryList => window.matchMedia('print')

/** Whether the page is being put on paper just now. */
export const useOnPaper = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      const media = onPaper()
      media.addEventListener('change', changed)
      return () => media.removeEventListener('change', changed)
    },
    () => onPaper().matches,
  )
