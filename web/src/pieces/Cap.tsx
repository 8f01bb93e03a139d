import { commandNamed, type CommandName } from '../keys/commands.ts'
import { useCap, useMay } from '../keys/useCommands.ts'
import { KeyCap } from './KeyCap.tsx'

/** The key of a command, as whoever is at the bench has it; nothing where none runs it. */
export function Cap({ of }: { of: CommandName }) {
  const cap = useCap()(of)
  const allowed = useMay()
  return cap === null || !allowed(commandNamed(of)) ? null : <KeyCap>{cap}</KeyCap>
}
