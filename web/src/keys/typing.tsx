import { createContext, useContext, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import { useLocation, useNavigate } from 'react-router'

/** What a single letter does in the place now open. */
export interface LetterKey {
  readonly run: () => void
  /** It leads to a field, which takes the digits that follow. */
  readonly intoField?: boolean
  /** It writes, or changes what was typed: no letter after it can take it back, so none makes a name with it. */
  readonly lasting?: boolean
}
export type LetterKeys = Readonly<Record<string, LetterKey>>

/** What the place now open does with letters, and what opens the finder. */
class TypingRegistry {
  /** Those of the place, and of what is open in it. */
  private letters: readonly LetterKeys[] = []
  private open: (text: string) => void = () => undefined

  actionOf(letter: string): LetterKey | undefined {
    const key = letter.toLowerCase()
    return this.letters.find((one) => key in one)?.[key]
  }
  openFinder(text: string): void {
    this.open(text)
  }
  /** @returns takes them back */
  addLetters(letters: LetterKeys): () => void {
    this.letters = [...this.letters, letters]
    return () => {
      this.letters = this.letters.filter((one) => one !== letters)
    }
  }
  setFinder(open: (text: string) => void): void {
    this.open = open
  }

  /** What was typed after a letter that acted, before the place it leads to was there to take it; null while no place is awaited. */
  private ahead: string | null = null

  /** A letter leads to a place that takes what follows. */
  awaitPlace(): void {
    this.ahead = ''
  }
  /** Whether the place is still on its way: once it is there, digits are its own. */
  isAwaited(): boolean {
    return this.ahead !== null
  }
  typeAhead(text: string): void {
    this.ahead = (this.ahead ?? '') + text
  }
  takeAhead(): string {
    const text = this.ahead ?? ''
    this.ahead = null
    return text
  }
}

const TypingContext = createContext(new TypingRegistry())

/** A second letter within this time belongs to the first: it was a name, not a key. */
const SAME_WORD_MS = 650
/** Digits within this time of a letter that acted are meant for the place it leads to. */
const AHEAD_MS = 2000

const isField = (target: EventTarget | null): target is HTMLInputElement =>
  target instanceof HTMLElement &&
  (target.tagName === 'INPUT' ||
    target.tagName === 'TEXTAREA' ||
    target.tagName === 'SELECT' ||
    target.isContentEditable)

/**
 * Typing anywhere finds a bike, and single letters act at once. Both live together because a letter that acted is
 * taken back when another follows: the name goes on in the finder, and the place is as it was.
 */
export function TypingProvider({ children }: { children: ReactNode }) {
  const [registry] = useState(() => new TypingRegistry())
  const navigate = useNavigate()
  const location = useLocation()
  const here = useRef(location)
  useEffect(() => {
    here.current = location
  }, [location])

  useEffect(() => {
    let acted: { letter: string; from: string; at: number; intoField: boolean } | null = null
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Shift') return
      const before = acted
      // Whatever is pressed next, the letter before it is either part of a name now or done with.
      acted = null
      if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return
      const { target, key, timeStamp } = event
      const since = before === null ? Infinity : timeStamp - before.at
      const ahead = before?.intoField === true && registry.isAwaited() && since < AHEAD_MS
      if (ahead && !isField(target) && /^[\d.,/ ]$/.test(key)) {
        event.preventDefault()
        acted = before
        registry.typeAhead(key)
        return
      }
      if (!/^[\p{L}\p{N}]$/u.test(key) || document.querySelector('[role="dialog"], [role="menu"]')) return
      // A digit that chose something begins no name.
      const goesOn = before !== null && since < SAME_WORD_MS && /\p{L}/u.test(before.letter) && /\p{L}/u.test(key)
      if (isField(target) && !(goesOn && target.dataset['takesBack'] === 'true' && target.value === '')) return
      event.preventDefault()
      if (goesOn) {
        void navigate(before.from, { replace: true })
        registry.openFinder(before.letter + key)
        return
      }
      const action = event.shiftKey ? undefined : registry.actionOf(key)
      if (!action) {
        registry.openFinder(key)
        return
      }
      const { pathname, search } = here.current
      acted =
        action.lasting === true
          ? null
          : { letter: key, from: pathname + search, at: timeStamp, intoField: action.intoField === true }
      registry.takeAhead()
      if (action.intoField === true) registry.awaitPlace()
      action.run()
    }
    // A dialog keeps its Escape to itself: seen on its way in, it ends the word all the same.
    const onWayIn = (event: KeyboardEvent): void => {
      if (event.key === 'Escape' || event.key === 'Enter') acted = null
    }
    // Who points at something has done with the keys.
    const onPointer = (): void => {
      acted = null
    }
    window.addEventListener('keydown', onWayIn, true)
    window.addEventListener('keydown', onKey)
    window.addEventListener('pointerdown', onPointer, true)
    return () => {
      window.removeEventListener('keydown', onWayIn, true)
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('pointerdown', onPointer, true)
    }
  }, [navigate, registry])

  return <TypingContext value={registry}>{children}</TypingContext>
}

/** Says what single letters and digits do while this is open. */
export function useLetterKeys(letters: LetterKeys): void {
  const registry = useContext(TypingContext)
  // Before anybody sees the place: who is quick would find a bike by the first key.
  useLayoutEffect(() => registry.addLetters(letters), [registry, letters])
}

/** Registers the finder with whoever types anywhere. */
export function useFinderOpener(open: (text: string) => void): void {
  const registry = useContext(TypingContext)
  useEffect(() => {
    registry.setFinder(open)
  }, [registry, open])
}

/** Takes what was typed before this place was there, once, as it opens. */
export function useTypedAhead(take: (text: string) => void): void {
  const registry = useContext(TypingContext)
  const taker = useRef(take)
  useEffect(() => {
    const text = registry.takeAhead()
    if (text !== '') taker.current(text)
  }, [registry])
}
