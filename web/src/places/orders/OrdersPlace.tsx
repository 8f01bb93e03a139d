import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import { useOrders } from '../../api/queries.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { PartsTabs } from '../parts/PartsTabs.tsx'
import { OrderCard } from './OrderCard.tsx'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'

/** What is on its way from the supplier, and what came. */
export function OrdersPlace() {
  const { t } = useTranslation()
  const [search] = useSearchParams()
  const orders = useOrders()
  useTitle(t('orders.heading'))
  return (
    <Box sx={{ px: 2.75, pt: 1.5, pb: 3, maxWidth: 980 }}>
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 2, flexWrap: 'wrap', mb: 1 }}
      >
        <Typography variant="h1">{t('orders.heading')}</Typography>
        <PartsTabs now="orders" bikeId={search.get('bike') ?? undefined} />
      </Stack>
      {orders.isPending ? (
        <Loading />
      ) : !orders.data ? (
        <Failure error={orders.error} again={() => void orders.refetch()} />
      ) : orders.data.length === 0 ? (
        <EmptyNext next={{ says: t('catalogue.title'), to: '/catalogue' }}>{t('orders.none')}</EmptyNext>
      ) : (
        orders.data.map((order) => <OrderCard key={order.id} order={order} />)
      )}
    </Box>
  )
}
