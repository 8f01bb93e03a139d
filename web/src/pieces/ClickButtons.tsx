import { Box, Button } from '@mui/material'
import type { Ref } from 'react'
import { useTranslation } from 'react-i18next'
import { CLICKS, type Click } from '@pelrin/core'
import { KeyCap } from './KeyCap.tsx'

/** How a link clicked, large enough for a gloved thumb, each under its digit. The digits themselves are the place's. */
export function ClickButtons({
  said,
  lead = null,
  label,
  disabled = false,
  first,
  onSay,
}: {
  /** What was said so far; null: nothing. */
  said: Click | null
  /** Where the eye is led while nothing was said. */
  lead?: Click | null
  label: string
  disabled?: boolean
  first?: Ref<HTMLButtonElement>
  onSay: (click: Click) => void
}) {
  const { t } = useTranslation()
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: 'repeat(3, minmax(0, 220px))' }, gap: 1.25 }}
    >
      {CLICKS.map((one, i) => (
        <Button
          key={one}
          ref={i === 0 ? (first ?? null) : null}
          variant={one === (said ?? lead) ? 'contained' : 'outlined'}
          aria-pressed={said === one}
          disabled={disabled}
          onClick={() => onSay(one)}
          sx={{ minHeight: 64, fontSize: 'size.lead', gap: 1.25 }}
        >
          {t(`jobs.clickOf.${one}`)} <KeyCap>{String(i + 1)}</KeyCap>
        </Button>
      ))}
    </Box>
  )
}
