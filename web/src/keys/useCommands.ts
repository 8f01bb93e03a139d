import { createContext, useContext, useLayoutEffect, useMemo } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { may } from '@pelrin/contract'
import { capOf, commandsOf, type Command, type CommandName, type CommandOf, type CommandPlace } from './commands.ts'
import { isControl, isPressed } from './isControl.ts'
import { keyFor, useOwnKeys } from './ownKeys.ts'
import { RoleContext } from './role.ts'
import { useLetterKeys, type LetterKeys } from './typing.tsx'

/** What runs a command; with the digit where several run it. */
export type Run = (digit: number) => unknown
/** What each command of a place does; null where it cannot be done just now. */
export type Handlers<P extends CommandPlace> = Readonly<Record<CommandOf<P>, Run | null>>

/** Commands that can be run now, for the palette: those of whatever is open. */
export class OpenCommands {
  private readonly open = new Map<CommandPlace, Readonly<Record<string, Run | null>>>()

  set(place: CommandPlace, handlers: Readonly<Record<string, Run | null>>): void {
    this.open.set(place, handlers)
  }
  remove(place: CommandPlace): void {
    this.open.delete(place)
  }
  /** What can be looked for by its words, in the order it is declared. */
  all(): { place: CommandPlace; id: string; run: () => void }[] {
    return [...this.open].flatMap(([place, handlers]) =>
      Object.entries(commandsOf(place)).flatMap(([id, { moves, key }]) => {
        const run = handlers[id]
        return moves === true || key.includes('-') || !run ? [] : [{ place, id, run: () => void run(0) }]
      }),
    )
  }
}
export const OpenCommandsContext = createContext(new OpenCommands())

/** A key with what is held with it, as commands name it. */
function pressed({ key, code, altKey, shiftKey }: KeyboardEvent): string {
  const name = /^Key[A-Z]$/.test(code)
    ? code.slice(3).toLowerCase()
    : /^Digit\d$/.test(code)
      ? code.slice(5)
      : key === ' '
        ? 'space'
        : key.toLowerCase()
  return `${altKey ? 'alt+' : ''}${shiftKey ? 'shift+' : ''}${name}`
}

/** Each key of a command: a span of digits is as many. */
const keysIn = (key: string): { key: string; digit: number }[] =>
  key.split(',').flatMap((one) => {
    const span = /^(.*?)(\d)-(\d)$/.exec(one)
    if (!span) return [{ key: one, digit: 0 }]
    const [, held = '', from = '', to = ''] = span
    return Array.from({ length: Number(to) - Number(from) + 1 }, (_, i) => ({
      key: `${held}${Number(from) + i}`,
      digit: Number(from) + i,
    }))
  })

/** Something lies over the place, and has the keys. */
export const isCovered = (): boolean =>
  document.querySelector('[role="dialog"], [role="menu"], .MuiPopover-root') !== null

/** Whether whoever is here may do what a command does; looking is everybody's, and outside of the shell there is nobody to hold to it. */
export function useMay(): (command: Pick<Command, 'right'>) => boolean {
  const role = useContext(RoleContext)
  return ({ right }) => right === undefined || role === null || may(role, right)
}

/** Says what the commands of a place do while it is open: their keys run them, and the palette finds them. */
export function useCommands<P extends CommandPlace>(place: P, given: Handlers<P>): void {
  const own = useOwnKeys()
  const allowed = useMay()
  const handlers = Object.fromEntries(
    Object.entries(given as Readonly<Record<string, Run | null>>).map(([id, run]) => {
      const command = commandsOf(place)[id]
      return [id, command && allowed(command) ? run : null]
    }),
  )
  const open = useContext(OpenCommandsContext)
  useLayoutEffect(() => {
    open.set(place, handlers)
    return () => open.remove(place)
  })

  const bound = Object.entries(commandsOf(place)).flatMap(([id, command]) => {
    const run = handlers[id]
    const key = keyFor(place, id, own)
    return !run || key === null ? [] : keysIn(key).map((one) => ({ ...one, command, run }))
  })
  const single = bound.filter(({ key }) => /^[a-z1-9]$/.test(key))
  useLetterKeys(
    Object.fromEntries(
      single.map(({ key, digit, run, command: { intoField = false, lasting = false } }) => [
        key,
        { run: () => void run(digit), intoField, lasting },
      ]),
    ) satisfies LetterKeys,
  )
  const others = useMemo(
    () =>
      Object.values(commandsOf(place))
        .flatMap(({ key }) => keysIn(key))
        .map(({ key }) => key)
        .filter((key) => !/^[a-z1-9]$/.test(key)),
    [place],
  )
  useHotkeys(
    others,
    (event) => {
      const found = bound.find(({ key }) => key === pressed(event))
      if (!found || isCovered()) return
      const { target } = event
      const typingIn = target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)
      if (typingIn && found.command.typing !== true) return
      // Enter and Space press what they are on; in a field that takes the key, Enter goes on.
      if (/^(enter|space)$/.test(found.key) && (found.command.typing ? isPressed(target) : isControl(target))) return
      event.preventDefault()
      found.run(found.digit)
    },
    { enableOnFormTags: true, enabled: others.length > 0 },
  )
}

/** The cap of a command's key, as it stands on its button; null where no key runs it. */
export function useCap(): (name: CommandName) => string | null {
  const own = useOwnKeys()
  return (name) => {
    const [place, id] = name.split('.') as [CommandPlace, string]
    const key = keyFor(place, id, own)
    return key === null ? null : capOf(key)
  }
}
