import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { linesPrice } from '@pelrin/core'
import { v7 } from 'uuid'
import { endpoints, type Offer } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useOrders } from '../../api/queries.ts'
import { useWrite, wrongAt } from '../../api/useWrite.ts'
import { ago } from '../../messages/format.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { Loading } from '../../pieces/States.tsx'
import { ink } from '../../theme/theme.ts'
import { priceText } from '../parts/partLook.ts'
import { OrderCard } from './OrderCard.tsx'
import { saidOf } from '../../messages/said.ts'
import { Refused } from '../../forms/Refused.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'

export interface ToOrder {
  readonly partId: string
  readonly name: string
  readonly quantity: number
}

/** Orders parts at the supplier: its prices and stock of now, how many, and what became of it. */
export function OrderDialog({ wanted, onClose }: { wanted: readonly ToOrder[]; onClose: () => void }) {
  const { t } = useTranslation()
  const orders = useOrders()
  const [orderId] = useState(() => v7())
  const [sent, setSent] = useState(false)
  const { wrong, at, setWrong, busy, write } = useWrite({
    access: endpoints.placeOrder.access,
    stale: [keys.orders, keys.catalogue, ['bike']],
  })
  const [counts, setCounts] = useState<Readonly<Record<string, string>>>({})
  const offered = useQuery({
    queryKey: ['offers', wanted.map(({ partId }) => partId)],
    queryFn: ({ signal }) => ask(endpoints.offers, { body: { parts: wanted.map(({ partId }) => partId) }, signal }),
    staleTime: 0,
    gcTime: 0,
  })
  const offerOf = (partId: string): Offer | undefined => offered.data?.offers.find((one) => one.partId === partId)
  // No more is asked for than they have; what they have none of is left out.
  const typed = ({ partId, quantity }: ToOrder): string =>
    counts[partId] ?? String(Math.min(quantity, offerOf(partId)?.stock ?? 0))
  const lines = wanted
    .filter((one) => offerOf(one.partId) && typed(one).trim() !== '0')
    .map((one) => ({ partId: one.partId, quantity: Number(typed(one).trim()), price: offerOf(one.partId)!.price }))
  const order = async (): Promise<void> => {
    const malformed = lines.filter(({ quantity }) => !Number.isInteger(quantity) || quantity < 1)
    if (malformed.length > 0) {
      setWrong(wrongAt(Object.fromEntries(malformed.map(({ partId }) => [partId, t('problems.quantity-range')]))))
      return
    }
    // Not knowing whether it arrived is no reason for another: sent again, it goes under the same number.
    if (await write(() => ask(endpoints.placeOrder, { body: { id: orderId, lines } }).then(() => true))) setSent(true)
  }
  // Asked and not answered at all is as good as a supplier that is away.
  const problem = offered.isError ? 'supplier-away' : (offered.data?.problem ?? null)
  const oldest = offered.data?.offers[0]
  const placed = orders.data?.find(({ id }) => id === orderId)
  return (
    <SheetDialog open onClose={onClose} title={t('orders.title')} maxWidth="md" fullWidth>
      {sent && placed ? (
        <Stack sx={{ gap: 1 }}>
          <OrderCard order={placed} />
          <Stack direction="row" sx={{ justifyContent: 'flex-end' }}>
            <Button variant="contained" onClick={onClose}>
              {t('app.close')}
            </Button>
          </Stack>
        </Stack>
      ) : offered.isPending ? (
        <Loading />
      ) : (
        <Box
          component="form"
          noValidate
          onSubmit={(event) => {
            event.preventDefault()
            void order()
          }}
        >
          {problem !== null && (
            <Alert severity="warning" sx={{ mb: 1.5 }}>
              {saidOf(t, 'orders.away', problem)} {oldest && t('orders.oldPrices', { when: ago(oldest.askedAt) })}
            </Alert>
          )}
          <Box
            component="table"
            sx={{ width: '100%', borderCollapse: 'collapse', '& td, & th': { py: 0.75, pr: 2, textAlign: 'left' } }}
          >
            <thead>
              <tr>
                {(['part', 'price', 'theirs', 'days', 'count'] as const).map((column) => (
                  <Typography
                    component="th"
                    key={column}
                    variant="body2"
                    color="textSecondary"
                    sx={{ fontWeight: 600 }}
                  >
                    {t(`orders.column.${column}`)}
                  </Typography>
                ))}
              </tr>
            </thead>
            <tbody>
              {wanted.map((one, i) => {
                const offer = offerOf(one.partId)
                return (
                  <Box component="tr" key={one.partId} sx={{ borderTop: `1px solid ${ink('line')}` }}>
                    <td>
                      <b>{one.name}</b>
                    </td>
                    {offer ? (
                      <>
                        <td>{priceText(offer.price, t)}</td>
                        <Box component="td" sx={{ color: offer.stock < one.quantity ? ink('madder') : 'inherit' }}>
                          {offer.stock}
                        </Box>
                        <td>{t('orders.days', { count: offer.days })}</td>
                        <td>
                          <TextField
                            autoFocus={i === 0}
                            size="small"
                            value={typed(one)}
                            onChange={(event) => {
                              setCounts({ ...counts, [one.partId]: event.target.value })
                              setWrong(null)
                            }}
                            error={at(one.partId) !== undefined}
                            helperText={at(one.partId)}
                            slotProps={{
                              htmlInput: {
                                'aria-label': t('orders.countOf', { part: one.name }),
                                inputMode: 'numeric',
                              },
                            }}
                            sx={{ width: 110 }}
                          />
                        </td>
                      </>
                    ) : (
                      <Box component="td" colSpan={4} sx={{ color: ink('madder'), fontWeight: 600 }}>
                        {t('orders.notOffered')}
                      </Box>
                    )}
                  </Box>
                )
              })}
            </tbody>
          </Box>
          <Stack direction="row" sx={{ justifyContent: 'flex-end', alignItems: 'center', gap: 2, pt: 2 }}>
            <Refused>{wrong && !lines.some(({ partId }) => at(partId)) ? wrong.sentence : undefined}</Refused>
            <Typography sx={{ fontSize: 'size.say', fontWeight: 700, fontVariantNumeric: 'tabular-nums' }}>
              {priceText(linesPrice(lines.filter(({ quantity }) => Number.isFinite(quantity))), t)}
            </Typography>
            <Allowed right="orders">
              <Button type="submit" variant="contained" disabled={busy || lines.length === 0} sx={{ px: 4 }}>
                {busy ? t('orders.ordering') : t('orders.place')}
              </Button>
            </Allowed>
          </Stack>
        </Box>
      )}
    </SheetDialog>
  )
}
