import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { CareEvent } from '@pelrin/contract'
import { Unlooked } from '../looks/Unlooked.tsx'
import { DatedLine } from './DatedLine.tsx'
import { useMay } from '../../keys/useCommands.ts'

/** What was done to a chain so far, newest first. */
export function CareHistory({
  bikeId,
  events,
  onBack,
}: {
  bikeId: string
  events: readonly CareEvent[]
  onBack: (id: string) => void
}) {
  const { t } = useTranslation()
  const may = useMay()
  const said = ({ kind, care, cleaning, atHome, person, note }: CareEvent): string =>
    [
      care === null ? t(`caring.event.${kind}`) : t(`care.${care}`),
      cleaning !== null && t(`caring.cleaning.${cleaning}`),
      atHome && t('caring.home'),
      note,
      person,
    ]
      .filter(Boolean)
      .join(', ')
  return (
    <Box component="section" aria-labelledby="care-history" sx={{ pt: 1 }}>
      <Typography id="care-history" variant="h3" component="h2" color="textSecondary">
        {t('caring.history')}
      </Typography>
      {events.length === 0 && <Typography color="textSecondary">{t('caring.noHistory')}</Typography>}
      <Box component="ol" aria-label={t('caring.history')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {events.map((event) => (
          <DatedLine
            may={may({ right: 'record' })}
            key={event.id}
            on={event.at}
            back={t('caring.back')}
            onBack={() => onBack(event.id)}
          >
            <Typography variant="body2" sx={{ fontWeight: event.kind === 'treated' ? 400 : 700 }}>
              {said(event)}
            </Typography>
            {event.unlooked && <Unlooked bikeId={bikeId} kind="care" id={event.id} />}
          </DatedLine>
        ))}
      </Box>
    </Box>
  )
}
