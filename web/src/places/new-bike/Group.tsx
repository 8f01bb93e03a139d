import { Box, Typography } from '@mui/material'
import type { ReactNode } from 'react'

/** Fields that are about one thing. */
export const Group = ({ title, children }: { title: string; children: ReactNode }) => (
  <Box component="section" aria-label={title}>
    <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 1.25 }}>
      {title}
    </Typography>
    {children}
  </Box>
)

/** Two fields beside each other. */
export const Pair = ({ children }: { children: ReactNode }) => (
  <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)', gap: 1.5, mb: 1 }}>{children}</Box>
)
