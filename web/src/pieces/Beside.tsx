import { Box, Stack } from '@mui/material'
import type { ReactNode } from 'react'

/** What is worked on, and beside it what belongs to it: each scrolls by itself; below one another where it is narrow. */
export function Beside({
  children,
  beside,
  width,
  fixed = false,
  toRead = false,
}: {
  children: ReactNode
  beside: ReactNode
  /** Of what stands beside, px. */
  width: number
  /** What stands beside scrolls in parts of its own. */
  fixed?: boolean
  /** Nothing that stands beside takes the focus: keys scroll it all the same. */
  toRead?: boolean
}) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: `minmax(0, 1fr) ${width}px` },
        gap: 3,
        flex: 1,
        minHeight: 0,
      }}
    >
      <Stack sx={{ minHeight: 0, gap: 1, overflow: { md: 'auto' } }}>{children}</Stack>
      <Stack
        {...(toRead ? { tabIndex: 0 } : {})}
        sx={{
          minHeight: 0,
          gap: 1,
          pb: 1,
          pt: 0.75,
          pl: { md: 2 },
          borderLeft: { md: 1 },
          borderColor: { md: 'divider' },
          overflow: { md: fixed ? 'visible' : 'auto' },
        }}
      >
        {beside}
      </Stack>
    </Box>
  )
}
