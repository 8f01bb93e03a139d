import { Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { POSITIONS, type Position } from '@pelrin/core'

/** Where the bike hangs, stands or lies, which the routing is told for. */
export function PositionChoice({ position, onChange }: { position: Position; onChange: (position: Position) => void }) {
  const { t } = useTranslation()
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
      <Typography>{t('jobs.positionLabel')}</Typography>
      <ToggleButtonGroup
        exclusive
        value={position}
        aria-label={t('jobs.positionLabel')}
        onChange={(_, chosen: Position | null) => chosen && onChange(chosen)}
      >
        {POSITIONS.map((one) => (
          <ToggleButton key={one} value={one} sx={{ px: 2 }}>
            {t(`jobs.position.${one}`)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Stack>
  )
}
