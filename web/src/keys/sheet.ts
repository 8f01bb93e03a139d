import type { MessageKey } from '../messages/said.ts'
import { capOf, COMMANDS, commandsOf, isLetter, type CommandPlace } from './commands.ts'
import { keyFor, type OwnKeys } from './ownKeys.ts'

/** One line of the sheet of keys: what does it, and what it does. */
export interface KeyLine {
  readonly cap: string | null
  readonly says: MessageKey
  /** The command, where its letter can be another. */
  readonly letterOf: { readonly place: CommandPlace; readonly id: string } | null
}
export interface KeySection {
  readonly title: MessageKey
  readonly at: RegExp
  readonly lines: readonly KeyLine[]
}

const fixed = (cap: string, says: MessageKey): KeyLine => ({ cap, says, letterOf: null })

/** What works wherever one is. */
const ANYWHERE: KeySection = {
  title: 'keys.anywhere',
  at: /^/,
  lines: [
    fixed('/', 'keys.finds'),
    fixed('Ctrl K', 'keys.byWords'),
    fixed('Alt T', 'keys.scan'),
    fixed('⇧ 1–=', 'keys.place'),
    fixed('?', 'keys.sheet'),
    fixed('Esc', 'keys.back'),
  ],
}
/** What of measuring is done in its fields. */
const MEASURING: readonly KeyLine[] = [
  fixed('Enter', 'keys.next'),
  fixed('1–9', 'keys.pick'),
  fixed('Alt I', 'keys.takeInstrument'),
  fixed('Alt O', 'keys.howTaken'),
  fixed('Alt H', 'keys.howTo'),
]

/** Everything there is, place by place, with the keys of whoever is at the bench: made from the commands. Those that say the same share a line. */
export function keySections(own: OwnKeys): KeySection[] {
  const sections = new Map<MessageKey, { at: RegExp; lines: KeyLine[] }>()
  for (const place of Object.keys(COMMANDS) as CommandPlace[]) {
    const { title, at } = COMMANDS[place]
    const { lines } = sections.get(title) ?? sections.set(title, { at, lines: [] }).get(title)!
    for (const [id, command] of Object.entries(commandsOf(place))) {
      const key = keyFor(place, id, own)
      const cap = key === null ? null : capOf(key)
      const before = lines.findIndex(({ says }) => says === command.says)
      if (before >= 0) lines[before] = { ...lines[before]!, cap: [lines[before]!.cap, cap].join(' ') }
      else lines.push({ cap, says: command.says, letterOf: isLetter(command) ? { place, id } : null })
    }
  }
  const measuring = sections.get('keys.inMeasure')
  measuring?.lines.unshift(...MEASURING)
  return [ANYWHERE, ...[...sections].map(([title, section]) => ({ title, ...section }))]
}
