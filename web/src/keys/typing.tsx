import { createContext, useContext, useEffect, useMemo, useRef, type ReactNode } from 'react'
import { useLocation, useNavigate } from 'react-router'

/** What single letters do in the place now open. */
export type LetterKeys = Readonly<Record<string, () => void>>

interface Typing {
  /** The place's letters; set by the place itself. */
  letters: LetterKeys
  /** Opens the finder with what was typed so far. */
  openFinder: (text: string) => void
}

const TypingContext = createContext<{ current: Typing }>({ current: { letters: {}, openFinder: () => undefined } })

/** A second letter within this time belongs to the first: it was a name, not a key. */
const SAME_WORD_MS = 1200

const isField = (target: EventTarget | null): target is HTMLInputElement =>
  target instanceof HTMLElement &&
  (target.tagName === 'INPUT' || target.tagName === 'TEXTAREA' || target.tagName === 'SELECT' || target.isContentEditable)

/**
 * Typing anywhere finds a bike, and single letters act at once. Both live together because a letter that acted is
 * taken back when another follows: the name goes on in the finder, and the place is as it was.
 */
export function TypingProvider({ children }: { children: ReactNode }) {
  const typing = useRef<Typing>({ letters: {}, openFinder: () => undefined })
  const navigate = useNavigate()
  const location = useLocation()
  const here = useRef(location)
  here.current = location

  useEffect(() => {
    let acted: { letter: string; from: string; at: number } | null = null
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return
      if (!/^[\p{L}\p{N}]$/u.test(event.key) || document.querySelector('[role="dialog"], [role="menu"]')) return
      const { target } = event
      const followsLetter = acted !== null && event.timeStamp - acted.at < SAME_WORD_MS && /\p{L}/u.test(event.key)
      if (isField(target) && !(followsLetter && target.dataset['takesBack'] === 'true' && target.value === '')) return
      if (acted !== null && followsLetter) {
        event.preventDefault()
        const text = acted.letter + event.key
        void navigate(acted.from, { replace: true })
        acted = null
        typing.current.openFinder(text)
        return
      }
      const action = event.shiftKey ? undefined : typing.current.letters[event.key.toLowerCase()]
      event.preventDefault()
      if (action) {
        const { pathname, search } = here.current
        acted = { letter: event.key, from: pathname + search, at: event.timeStamp }
        action()
      } else {
        acted = null
        typing.current.openFinder(event.key)
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [navigate])

  return <TypingContext value={typing}>{children}</TypingContext>
}

/** Says what single letters do while this place is open. */
export function useLetterKeys(letters: LetterKeys): void {
  const typing = useContext(TypingContext)
  useEffect(() => {
    typing.current.letters = letters
    return () => {
      if (typing.current.letters === letters) typing.current.letters = {}
    }
  }, [typing, letters])
}

/** Registers the finder with whoever types anywhere. */
export function useFinderOpener(open: (text: string) => void): void {
  const typing = useContext(TypingContext)
  const opener = useMemo(() => open, [open])
  useEffect(() => {
    typing.current.openFinder = opener
  }, [typing, opener])
}
