import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { outstandingOf } from '@pelrin/core'
import { v7 } from 'uuid'
import { endpoints, type Order, type OrderLine } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { ago, day } from '../../messages/format.ts'
import { Plate } from '../../pieces/Plate.tsx'
import type { PlateShape } from '@pelrin/drawn'
import { ink } from '../../theme/theme.ts'
import { priceText } from '../parts/partLook.ts'
import { saidOf, type MessageKey } from '../../messages/said.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { Refused } from '../../forms/Refused.tsx'

const LOOK: Readonly<Record<Order['state'], { plate: PlateShape; colour: string }>> = {
  sending: { plate: 'dashed', colour: ink('ink') },
  unsure: { plate: 'dashed', colour: ink('brass') },
  refused: { plate: 'parted', colour: ink('madder') },
  placed: { plate: 'notched', colour: ink('steel') },
  received: { plate: 'whole', colour: ink('steel') },
  cancelled: { plate: 'dashed', colour: ink('faint') },
}

/** One order: where it stands in words, what it holds, and what can be done about it now. */
export function OrderCard({ order }: { order: Order }) {
  const { t } = useTranslation()
  const [came, setCame] = useState<Readonly<Record<string, string>>>({})
  const { wrong, busy, write } = useWrite({
    access: endpoints.cancelOrder.access,
    stale: [keys.orders, keys.catalogue],
  })
  const { state, problem, lines } = order
  const run = async (job: () => Promise<unknown>): Promise<void> => {
    if (await write(() => job().then(() => true))) setCame({})
  }
  const params = { id: order.id }
  const typed = (line: OrderLine): string => came[line.id] ?? String(outstandingOf(line))
  const receive = (): Promise<void> =>
    run(() => {
      const counted = lines
        .filter((line) => outstandingOf(line) > 0)
        .map((line) => ({ id: line.id, quantity: Number(typed(line).trim()) }))
        .filter(({ quantity }) => quantity !== 0)
      return ask(endpoints.receiveOrder, { params, key: v7(), body: { lines: counted } })
    })
  const action = (label: MessageKey, job: () => Promise<unknown>, strong = false) => (
    <Button variant={strong ? 'contained' : 'outlined'} disabled={busy} onClick={() => void run(job)}>
      {t(label)}
    </Button>
  )
  return (
    <Box
      component="article"
      aria-label={order.number ?? t('orders.unnumbered')}
      sx={{ borderTop: 1, borderColor: 'divider', py: 1.5 }}
    >
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
        <Plate shape={LOOK[state].plate} colour={LOOK[state].colour} height={16} />
        <Typography sx={{ fontWeight: 700, color: LOOK[state].colour }}>{t(`orders.state.${state}`)}</Typography>
        <Typography sx={{ fontWeight: 600 }}>{order.number ?? ''}</Typography>
        <Typography color="textSecondary">
          {t('orders.sent', { when: ago(order.sentAt), by: order.by })}
          {state === 'placed' &&
            order.expectedOn !== null &&
            `, ${t('orders.expected', { day: day(order.expectedOn) })}`}
        </Typography>
        <Box sx={{ flex: 1 }} />
        <Typography sx={{ fontWeight: 700, fontVariantNumeric: 'tabular-nums' }}>{priceText(order.cost, t)}</Typography>
      </Stack>
      {problem !== null && (
        <Typography sx={{ color: LOOK[state].colour }} role="status">
          {saidOf(t, 'orders.problem', problem)}
        </Typography>
      )}
      <Box
        component="table"
        sx={{ borderCollapse: 'collapse', mt: 0.5, '& td': { py: 0.25, pr: 2.5, verticalAlign: 'middle' } }}
      >
        <tbody>
          {lines.map((line) => (
            <tr key={line.id}>
              <td>
                {line.quantity} × <b>{`${line.maker} ${line.name}`}</b>
              </td>
              <Box component="td" sx={{ textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
                {priceText(line.price, t)}
              </Box>
              <Box
                component="td"
                sx={{
                  color: state === 'refused' ? ink('madder') : 'text.secondary',
                  fontWeight: state === 'refused' ? 600 : 400,
                }}
              >
                {refusal(line)}
                {line.received > 0 && t('orders.came', { count: line.received })}
              </Box>
              {state === 'placed' && line.received < line.quantity && (
                <td>
                  <TextField
                    size="small"
                    value={typed(line)}
                    onChange={(event) => setCame({ ...came, [line.id]: event.target.value })}
                    slotProps={{
                      htmlInput: {
                        'aria-label': t('orders.cameOf', { part: `${line.maker} ${line.name}` }),
                        inputMode: 'numeric',
                      },
                    }}
                    sx={{ width: 74 }}
                  />
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </Box>
      <Refused>{wrong?.sentence}</Refused>
      <Allowed right="orders">
        <Stack direction="row" sx={{ gap: 1, mt: 0.5, flexWrap: 'wrap' }}>
          {state === 'placed' && (
            <Button variant="outlined" disabled={busy} onClick={() => void receive()}>
              {t('orders.receive')}
            </Button>
          )}
          {(state === 'unsure' || state === 'sending') &&
            action('orders.settle', () => ask(endpoints.settleOrder, { params }))}
          {state === 'refused' &&
            problem === 'order-not-as-listed' &&
            action(
              'orders.accept',
              () => ask(endpoints.acceptOrder, { params, body: { version: order.version } }),
              true,
            )}
          {state === 'refused' &&
            action('orders.cancel', () =>
              ask(endpoints.cancelOrder, { params, key: v7(), body: { version: order.version } }),
            )}
        </Stack>
      </Allowed>
    </Box>
  )

  /** What the supplier says of a line it refused. */
  function refusal({ price, priceNow, quantity, stockNow }: OrderLine): string {
    if (state !== 'refused') return ''
    return [
      ...(priceNow !== null && priceNow !== price ? [t('orders.priceNow', { price: priceText(priceNow, t) })] : []),
      ...(stockNow !== null && stockNow < quantity ? [t('orders.stockNow', { count: stockNow })] : []),
    ].join(', ')
  }
}
