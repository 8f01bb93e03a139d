import { Box, Button, Stack } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { useRack } from '../../api/queries.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Empty, Loading } from '../../pieces/States.tsx'
import { FirstDay } from '../first-day/FirstDay.tsx'

/** Nobody is booked for today; in a shop without a bike, what its first day has to do. */
export function NothingYet() {
  const { t } = useTranslation()
  const rack = useRack({ q: '', state: undefined, drive: undefined })
  if (rack.isPending) return <Loading />
  const bikes = rack.data?.pages[0]?.total ?? 0
  if (bikes === 0)
    return (
      <Box sx={{ px: 2.75, py: 2, gridColumn: { lg: 'span 2' }, overflow: { md: 'auto' } }}>
        <FirstDay />
      </Box>
    )
  return (
    <Stack sx={{ alignItems: 'center' }}>
      <Empty>{t('stand.empty')}</Empty>
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap' }}>
        <KeyButton of="stand.newBike" component={Link} to="/new-bike" variant="outlined">
          {t('newBike.add')}
        </KeyButton>
        <Button component={Link} to="/diary" variant="outlined">
          {t('stand.book')}
        </Button>
      </Stack>
    </Stack>
  )
}
