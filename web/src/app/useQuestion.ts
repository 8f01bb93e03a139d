import { useEffect, useRef, useState } from 'react'
import type { Question } from '../api/question.ts'

/** A question as the page asks it: whether it is open, and how it is answered. The request that asked goes on with the answer. */
export function useQuestion({ onAsk }: Question): { open: boolean; answer: (given: boolean) => void } {
  const [open, setOpen] = useState(false)
  const waiting = useRef<(given: boolean) => void>(() => undefined)
  useEffect(
    () =>
      onAsk(
        () =>
          new Promise<boolean>((done) => {
            waiting.current = done
            setOpen(true)
          }),
      ),
    [onAsk],
  )
  const answer = (given: boolean): void => {
    setOpen(false)
    waiting.current(given)
  }
  return { open, answer }
}
