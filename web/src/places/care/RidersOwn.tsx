import { Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { BikeCare } from '@pelrin/contract'
import { day } from '../../messages/format.ts'

/** What whoever rides it takes along: their own steps, and the dates by the usual rhythm for their calendar. */
export function RidersOwn({ bikeId, care }: { bikeId: string; care: BikeCare }) {
  const { t } = useTranslation()
  const { rhythm, wash } = care
  const known = Object.values(rhythm).some((every) => every !== null)
  return (
    <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      <Button component={Link} to={`/bikes/${bikeId}/sheets/at-home`} variant="outlined">
        {t('caring.homeSheet')}
      </Button>
      {known && (
        <Button component="a" href={`/api/v1/bikes/${bikeId}/rhythm.ics`} variant="outlined">
          {t('caring.calendar')}
        </Button>
      )}
      {wash.on !== null && <Typography>{t('caring.washOn', { date: day(wash.on) })}</Typography>}
    </Stack>
  )
}
