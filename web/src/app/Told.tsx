import { Snackbar } from '@mui/material'
import { useCallback, useState, type ReactElement } from 'react'

const STANDS_MS = 5_000

/** A way to say something in passing, and where it stands. */
export function useTold(): { tell: (text: string) => void; told: ReactElement } {
  const [said, setSaid] = useState({ text: '', nth: 0, open: false })
  const tell = useCallback((text: string) => setSaid(({ nth }) => ({ text, nth: nth + 1, open: true })), [])
  const told = (
    <Snackbar
      // What is said while something else still stands there has its own five seconds.
      key={said.nth}
      open={said.open}
      autoHideDuration={STANDS_MS}
      onClose={(_, reason) => reason !== 'clickaway' && setSaid((before) => ({ ...before, open: false }))}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      message={said.text}
      sx={{ mb: 8 }}
    />
  )
  return { tell, told }
}
