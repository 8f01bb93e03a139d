import { Button, type ButtonProps } from '@mui/material'
import type { ElementType } from 'react'
import { KeyCap } from './KeyCap.tsx'

/** A button that a key presses as well: the key stands beside its words. */
export function KeyButton<C extends ElementType = 'button'>({
  cap,
  children,
  ...button
}: ButtonProps<C, { component?: C }> & {
  /** The key; null where there is none just now. */
  cap: string | null
}) {
  return (
    <Button {...button}>
      {children}
      {cap !== null && <KeyCap sx={{ ml: 1.25 }}>{cap}</KeyCap>}
    </Button>
  )
}
