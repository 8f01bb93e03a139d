import { useSyncExternalStore } from 'react'
import * as v from 'valibot'
import { COMMANDS, commandsOf, isLetter, type CommandPlace } from './commands.ts'

const Kept = v.object({
  /** Whether single letters act at all; else they only begin a name. */
  letters: v.boolean(),
  /** Letters of one's own, by the name of the command. */
  of: v.record(v.string(), v.pipe(v.string(), v.regex(/^[a-z]$/))),
})
export type OwnKeys = v.InferOutput<typeof Kept>

const AS_DECLARED: OwnKeys = { letters: true, of: {} }
const keyOf = (personId: string): string => `pelrin.keys ${personId}`

const listeners = new Set<() => void>()
let person = ''
let own: OwnKeys = AS_DECLARED

/** Whose keys they are from now on: each person has their own, on each device. */
export function keysAreOf(personId: string): void {
  if (personId === person) return
  person = personId
  own = AS_DECLARED
  try {
    const read = v.safeParse(Kept, JSON.parse(localStorage.getItem(keyOf(personId)) ?? 'null'))
    if (read.success) own = read.output
  } catch {
    // What cannot be read is as if it were not there.
  }
  for (const listener of listeners) listener()
}

export const ownKeys = (): OwnKeys => own

export function changeKeys(next: OwnKeys): void {
  own = next
  try {
    localStorage.setItem(keyOf(person), JSON.stringify(next))
  } catch {
    // Then for as long as the page is open.
  }
  for (const listener of listeners) listener()
}

export const useOwnKeys = (): OwnKeys =>
  useSyncExternalStore(
    (changed) => {
      listeners.add(changed)
      return () => listeners.delete(changed)
    },
    ownKeys,
    ownKeys,
  )

/** The key that runs a command for whoever is at the bench; null where letters are switched off. */
export function keyFor(place: CommandPlace, id: string, { letters, of }: OwnKeys): string | null {
  const command = commandsOf(place)[id]!
  if (!isLetter(command)) return command.key
  return letters ? (of[`${place}.${id}`] ?? command.key) : null
}

/** Which command of the same place a letter runs already; undefined where it is free. */
export const takenBy = (place: CommandPlace, id: string, letter: string, keys: OwnKeys): string | undefined =>
  (Object.keys(COMMANDS) as CommandPlace[])
    .filter((one) => String(COMMANDS[one].at) === String(COMMANDS[place].at))
    .flatMap((one) => Object.keys(commandsOf(one)).map((other) => [one, other] as const))
    .filter(([one, other]) => (one !== place || other !== id) && keyFor(one, other, keys) === letter)
    .map(([one, other]) => `${one}.${other}`)[0]
