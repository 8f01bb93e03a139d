import { Box, Button, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import { day } from '../../messages/format.ts'

/** A line of a list in Care: its day, what is said of it, and how it is taken back. */
export function DatedLine({
  on,
  children,
  back,
  may,
  busy = false,
  onBack,
}: {
  on: string
  children: ReactNode
  back: string
  /** Whether whoever is here may take it back. */
  may: boolean
  busy?: boolean
  onBack: () => void
}) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: '110px minmax(0, 1fr) auto',
        gap: 1.5,
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <Typography variant="body2">{day(on)}</Typography>
      {children}
      {may && (
        <Button variant="text" disabled={busy} onClick={onBack} sx={{ px: 1 }}>
          {back}
        </Button>
      )}
    </Box>
  )
}
