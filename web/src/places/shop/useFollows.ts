import { useEffect, useRef } from 'react'
import { useFormContext, useWatch } from 'react-hook-form'

/** A field that follows another until somebody types in it themselves. */
export function useFollows(from: string, to: string, made: (typed: string) => string): void {
  const { control, getValues, setValue } = useFormContext()
  const typed = useWatch({ control, name: from }) as string
  /** What it was made to be; what it is besides was typed. */
  const last = useRef<string | null>(null)
  const first = useRef(typed)
  useEffect(() => {
    if (typed === first.current) return
    const now = getValues(to) as string
    if (last.current === null || now === last.current || now === '') {
      last.current = made(typed)
      setValue(to, last.current, { shouldDirty: true })
    }
  }, [typed, to, made, getValues, setValue])
}
