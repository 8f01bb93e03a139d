import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { RackFilters } from './RackFilters.tsx'
import { RackTable } from './RackTable.tsx'
import { useRackPlace } from './useRackPlace.ts'

/** Every bike, soonest trouble first or by a column. */
export function RackPlace() {
  const { t } = useTranslation()
  const place = useRackPlace()
  const { rack, list, filters, sorted } = place
  useTitle(t('place.rack'))
  const clear = (): void => {
    filters.setText('')
    filters.set({ state: null, drive: null })
  }
  return (
    <Stack sx={{ height: '100%', px: 2.25, pt: 1.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap', mb: 1.25 }}>
        <Typography variant="h2" component="h1">
          {t(sorted.sort === undefined ? 'rack.title' : 'rack.titleSorted')}
        </Typography>
        <Typography color="textSecondary" aria-live="polite">
          {list.first && t('rack.count', { count: list.first.total })}
        </Typography>
        <Box sx={{ flex: 1 }} />
        <KeyButton of="rack.newBike" component={Link} to="/new-bike" variant="outlined">
          {t('newBike.add')}
        </KeyButton>
        <KeyButton of="rack.customers" component={Link} to="/customers" variant="outlined">
          {t('customer.list')}
        </KeyButton>
        <KeyButton of="rack.tags" component={Link} to={`/tags?${filters.search}`} variant="outlined">
          {t('tags.sheet')}
        </KeyButton>
      </Stack>
      <RackFilters {...place} />
      {rack.isPending ? (
        <Loading />
      ) : !rack.data ? (
        <Failure error={rack.error} again={() => void rack.refetch()} />
      ) : list.rows.length === 0 ? (
        filters.search === '' && filters.text === '' ? (
          <EmptyNext next={{ says: t('newBike.add'), to: '/new-bike' }}>{t('rack.noneYet')}</EmptyNext>
        ) : (
          <EmptyNext next={{ says: t('rack.clear'), run: clear }}>{t('rack.none')}</EmptyNext>
        )
      ) : (
        <RackTable {...place} />
      )}
    </Stack>
  )
}
