import type { CommandName } from '../keys/commands.ts'
import { useCap } from '../keys/useCommands.ts'
import { KeyCap } from './KeyCap.tsx'

/** The key of a command, as whoever is at the bench has it; nothing where none runs it. */
export function Cap({ of }: { of: CommandName }) {
  const cap = useCap()(of)
  return cap === null ? null : <KeyCap>{cap}</KeyCap>
}
