import { Box } from '@mui/material'
import type { ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { KeyButton } from './KeyButton.tsx'
import { Empty } from './States.tsx'

/** Nothing is here yet, and what to do next: it has the focus, so that Enter does it. */
export function EmptyNext({
  next,
  children,
}: {
  next: { readonly says: string } & ({ readonly to: string } | { readonly run: () => void })
  children: ReactNode
}) {
  const navigate = useNavigate()
  return (
    <Box sx={{ textAlign: 'center' }}>
      <Empty>{children}</Empty>
      <KeyButton
        cap="Enter"
        autoFocus
        variant="contained"
        sx={{ minHeight: 56 }}
        onClick={() => ('to' in next ? void navigate(next.to) : next.run())}
      >
        {next.says}
      </KeyButton>
    </Box>
  )
}
