import { Box, Button, Typography } from '@mui/material'
import type { PartsFacts } from '@pelrin/contract'
import type { Assumptions } from '@pelrin/core'
import { ink } from '../../theme/theme.ts'

/** What every way of finding a length goes by. */
export interface LengthProps {
  facts: PartsFacts
  /** What the shop assumes, its own values in place. */
  assumed: Assumptions
  /** The count chosen; null while none is known. */
  pitches: number | null
  onPitches: (pitches: number | null) => void
}

/** One way of finding the length, and what it comes to. */
export function LengthRow({
  name,
  note,
  count,
  chosen,
  onChoose,
}: {
  name: string
  note: string
  count: number | null
  chosen: boolean
  onChoose: () => void
}) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) 64px',
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        minHeight: 40,
      }}
    >
      <Typography variant="body2" sx={{ lineHeight: 1.2 }}>
        {name}
        {note !== '' && (
          <Typography component="span" variant="body2" color="textSecondary" sx={{ display: 'block', lineHeight: 1.2 }}>
            {note}
          </Typography>
        )}
      </Typography>
      <Button
        disabled={count === null}
        aria-pressed={chosen}
        onClick={onChoose}
        sx={{
          minHeight: 40,
          minWidth: 56,
          fontSize: 'size.lead',
          fontWeight: chosen ? 700 : 500,
          color: 'text.primary',
          boxShadow: chosen ? `inset 0 -3px ${ink('steel')}` : 'none',
          borderRadius: 0,
        }}
      >
        {count ?? '–'}
      </Button>
    </Box>
  )
}
