import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { SearchField } from '../../pieces/SearchField.tsx'
import { Empty, Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { CustomersTable } from './CustomersTable.tsx'
import { useCustomersPlace } from './useCustomersPlace.ts'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'

/** Every customer, by name or by a column. */
export function CustomersPlace() {
  const { t } = useTranslation()
  const place = useCustomersPlace()
  const { customers, list, filters } = place
  useTitle(t('customer.list'))
  return (
    <Stack sx={{ height: '100%', px: 2.25, pt: 1.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap', mb: 1.25 }}>
        <Typography variant="h2" component="h1">
          {t('customer.list')}
        </Typography>
        <Typography color="textSecondary" aria-live="polite">
          {list.first && t('customer.count', { count: list.first.total })}
        </Typography>
        <Box sx={{ flex: 1 }} />
        <SearchField label={t('customer.filter')} width={280} text={filters.text} onText={filters.setText} />
        <KeyButton of="customers.newBike" component={Link} to="/new-bike" variant="outlined">
          {t('newBike.add')}
        </KeyButton>
      </Stack>
      {customers.isPending ? (
        <Loading />
      ) : !customers.data ? (
        <Failure error={customers.error} again={() => void customers.refetch()} />
      ) : list.rows.length === 0 ? (
        filters.text.trim() === '' ? (
          <EmptyNext next={{ says: t('newBike.add'), to: '/new-bike' }}>{t('customer.listNone')}</EmptyNext>
        ) : (
          <Empty>{t('customer.listNoMatch')}</Empty>
        )
      ) : (
        <CustomersTable {...place} />
      )}
    </Stack>
  )
}
