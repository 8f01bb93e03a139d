import { Stack } from '@mui/material'
import type { ReactNode } from 'react'

/** Fields of one thing to write down, in a row; Enter sends them. */
export function LedgerForm({ onSend, children }: { onSend: () => void; children: ReactNode }) {
  return (
    <Stack
      component="form"
      noValidate
      direction="row"
      onSubmit={(event) => {
        event.preventDefault()
        onSend()
      }}
      sx={{ gap: 1.25, flexWrap: 'wrap', alignItems: 'flex-start' }}
    >
      {children}
    </Stack>
  )
}
