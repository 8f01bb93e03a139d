import { Box, Button, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { CareEvent } from '@pelrin/contract'
import { day } from '../../messages/format.ts'

/** What was done to a chain so far, newest first. */
export function CareHistory({ events, onBack }: { events: readonly CareEvent[]; onBack: (id: string) => void }) {
  const { t } = useTranslation()
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
          <Box
            component="li"
            key={event.id}
            sx={{
              display: 'grid',
              gridTemplateColumns: '110px minmax(0, 1fr) auto',
              gap: 1.5,
              alignItems: 'center',
              borderTop: 1,
              borderColor: 'divider',
              minHeight: 44,
            }}
          >
            <Typography variant="body2">{day(event.at)}</Typography>
            <Typography variant="body2" sx={{ fontWeight: event.kind === 'treated' ? 400 : 700 }}>
              {said(event)}
            </Typography>
            <Button variant="text" onClick={() => onBack(event.id)} sx={{ minHeight: 40, px: 1 }}>
              {t('caring.back')}
            </Button>
          </Box>
        ))}
      </Box>
    </Box>
  )
}
