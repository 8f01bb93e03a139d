import { Button, type ButtonProps } from '@mui/material'
import type { ElementType } from 'react'
import { commandNamed, type CommandName } from '../keys/commands.ts'
import { useCap, useMay } from '../keys/useCommands.ts'
import { KeyCap } from './KeyCap.tsx'

/** A button that a key presses as well: the key stands beside its words. */
export function KeyButton<C extends ElementType = 'button'>({
  of,
  cap,
  children,
  ...button
}: ButtonProps<C, { component?: C }> &
  (
    | { /** The command it stands for. */ of: CommandName; cap?: never }
    | { /** The key, where it is no command of a place. */ cap: string; of?: never }
  )) {
  const commanded = useCap()
  const allowed = useMay()
  // What somebody may not do is not offered to them.
  if (of !== undefined && !allowed(commandNamed(of))) return null
  const shown = of === undefined ? cap : commanded(of)
  return (
    <Button {...button}>
      {children}
      {shown != null && <KeyCap sx={{ ml: 1.25 }}>{shown}</KeyCap>}
    </Button>
  )
}
