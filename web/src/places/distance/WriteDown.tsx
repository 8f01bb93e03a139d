import { Box, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { RideForm } from './RideForm.tsx'
import { ValueForm } from './ValueForm.tsx'

type Kind = 'ride' | 'odometer' | 'statement' | 'chain-start'

/** Writes down a ride, an odometer value, or what the customer says of a year. */
export function WriteDown({
  bikeId,
  unit,
  startUnknown,
}: {
  bikeId: string
  unit: 'km' | 'mi'
  /** The chain came in with the bike: what it had run before can be said. */
  startUnknown: boolean
}) {
  const { t } = useTranslation()
  const [kind, setKind] = useState<Kind>('ride')
  return (
    <Box component="section" aria-label={t('distanceOf.add')}>
      <ToggleButtonGroup
        exclusive
        value={kind}
        onChange={(_, chosen: Kind | null) => chosen && setKind(chosen)}
        aria-label={t('distanceOf.add')}
        sx={{ mb: 2 }}
      >
        {(['ride', 'odometer', 'statement', ...(startUnknown ? ['chain-start' as const] : [])] as const).map((one) => (
          <ToggleButton key={one} value={one}>
            {t(`distanceOf.${one}`)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {kind === 'ride' ? (
        <RideForm bikeId={bikeId} unit={unit} />
      ) : (
        <ValueForm key={kind} bikeId={bikeId} unit={unit} kind={kind} />
      )}
    </Box>
  )
}
