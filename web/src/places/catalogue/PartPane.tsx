import { Alert, Box, Button, Stack, Typography } from '@mui/material'
import { useState, type Dispatch, type SetStateAction } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { freeOnShelf, orderQuantity } from '@pelrin/core'
import type { CatalogueItem, DriveSystem } from '@pelrin/contract'
import { useBikeParts } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ago, day } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { ink } from '../../theme/theme.ts'
import { OrderDialog } from '../orders/OrderDialog.tsx'
import { useKeeping } from '../parts/useKeeping.ts'
import { priceText, speedsText } from '../parts/partLook.ts'
import { Movement, type MovementKind } from './Movement.tsx'
import { PartForm } from './PartForm.tsx'
import { type MessageKey } from '../../messages/said.ts'

const MOVEMENTS: readonly (readonly [MovementKind, MessageKey, string])[] = [
  ['received', 'catalogue.receive', 'I'],
  ['used', 'catalogue.use', 'U'],
  ['counted', 'catalogue.countStock', 'C'],
]

/** One part: how many are here and for whom, what came and went, and what is known of it. */
export function PartPane({
  item,
  systems,
  bike,
  moving,
  onMoving,
}: {
  item: CatalogueItem
  systems: readonly DriveSystem[]
  /** The bike in hand, for which one may be kept. */
  bike: { readonly id: string; readonly name: string } | null
  /** What is being written down of the stock. */
  moving: MovementKind | null
  onMoving: Dispatch<SetStateAction<MovementKind | null>>
}) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const [ordering, setOrdering] = useState(false)
  const facts = useBikeParts(bike?.id)
  const keeping = useKeeping(bike?.id ?? '')
  const name = `${item.maker} ${item.name}`
  const keepOne = async (): Promise<void> => {
    const before = facts.data?.kept
    await keeping.keep(before?.pitches ?? null, [
      ...(before?.lines ?? []).filter(({ partId }) => partId !== item.id),
      { partId: item.id, quantity: 1, included: false },
    ])
    tell(t('catalogue.saved'))
  }
  return (
    <Stack sx={{ gap: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'flex-start', gap: 2, flexWrap: 'wrap' }}>
        <Box sx={{ flex: 1, minWidth: 220 }}>
          <Typography variant="h1" component="h2">
            {name}
          </Typography>
          <Typography color="textSecondary">
            {[
              t(`catalogue.kind.${item.kind}`),
              ...(item.speeds.length > 0 ? [speedsText(item.speeds, t)] : []),
              priceText(item.price, t),
            ].join(', ')}
          </Typography>
        </Box>
        <Figure value={item.stock} label={t('catalogue.here')} low={item.low} />
        <Figure value={item.kept} label={t('catalogue.column.kept')} />
        <Figure value={item.onOrder} label={t('catalogue.coming')} />
        <Figure value={item.reorderPoint} label={t('catalogue.reorderAt')} />
      </Stack>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        {MOVEMENTS.map(([kind, label, letter]) => (
          <KeyButton
            cap={letter}
            key={kind}
            variant={moving === kind ? 'contained' : 'outlined'}
            onClick={() => onMoving(moving === kind ? null : kind)}
            sx={{ px: 1.5 }}
          >
            {t(label)}
          </KeyButton>
        ))}
        <Box sx={{ flex: 1 }} />
        {bike && (
          <Button
            variant="outlined"
            disabled={keeping.busy || facts.isPending}
            onClick={() => void keepOne()}
            sx={{ px: 1.5 }}
          >
            {t('catalogue.keepFor', { bike: bike.name })}
          </Button>
        )}
        <Button variant={item.low ? 'contained' : 'outlined'} onClick={() => setOrdering(true)} sx={{ px: 1.5 }}>
          {t('catalogue.orderThis')}
        </Button>
      </Stack>
      {keeping.wrong !== null && <Alert severity="error">{keeping.wrong}</Alert>}
      {moving !== null && (
        <Movement
          key={moving}
          item={item}
          kind={moving}
          // Another may have been begun while this one was written.
          onDone={() => onMoving((now) => (now === moving ? null : now))}
        />
      )}
      {item.offer && (
        <Typography variant="body2" color="textSecondary">
          {t('catalogue.offer', {
            price: priceText(item.offer.price, t),
            stock: item.offer.stock,
            days: item.offer.days,
            when: ago(item.offer.askedAt),
          })}
        </Typography>
      )}
      <KeptFor item={item} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 230px' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        <PartForm key={item.id} item={item} systems={systems} />
        <Movements item={item} />
      </Box>
      {ordering && (
        <OrderDialog
          wanted={[{ partId: item.id, name, quantity: orderQuantity(item) }]}
          onClose={() => setOrdering(false)}
        />
      )}
    </Stack>
  )
}

/** For which bikes some are put aside. */
function KeptFor({ item }: { item: CatalogueItem }) {
  const { t } = useTranslation()
  if (item.keptFor.length === 0) return null
  return (
    <Box component="section" aria-label={t('catalogue.keptFor')}>
      <Typography variant="h3" component="h3" color="textSecondary">
        {t('catalogue.keptFor')} ({t('catalogue.free', { count: Math.max(0, freeOnShelf(item)) })})
      </Typography>
      {item.keptFor.map(({ bikeId, bike: bikeName, quantity }) => (
        <Typography
          key={bikeId}
          component={Link}
          to={`/bikes/${bikeId}/parts`}
          sx={{ display: 'block', color: 'primary.main' }}
        >
          {quantity} × {bikeName}
        </Typography>
      ))}
    </Box>
  )
}

/** What came and went, newest first. */
function Movements({ item }: { item: CatalogueItem }) {
  const { t } = useTranslation()
  return (
    <Box component="section" aria-label={t('catalogue.movements')}>
      <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 0.5 }}>
        {t('catalogue.movements')}
      </Typography>
      {item.movements.length === 0 && <Typography variant="body2">{t('catalogue.noMovements')}</Typography>}
      {item.movements.map(({ id, kind, change, stockAfter, occurredAt, person, note }) => (
        <Box
          key={id}
          sx={{
            display: 'grid',
            gridTemplateColumns: '44px minmax(0, 1fr) 32px',
            columnGap: 1,
            py: 0.5,
            borderTop: 1,
            borderColor: 'divider',
          }}
        >
          <Typography sx={{ fontWeight: 700, textAlign: 'right', color: change < 0 ? ink('madder') : ink('steel') }}>
            {change > 0 ? `+${change}` : change < 0 ? `−${-change}` : '0'}
          </Typography>
          <Typography variant="body2">
            {t(`catalogue.movement.${kind}`)}, {person}
            <Box component="span" sx={{ display: 'block', color: 'text.secondary' }}>
              {day(occurredAt)}
              {note !== null && `, ${note}`}
            </Box>
          </Typography>
          <Typography sx={{ textAlign: 'right' }}>{stockAfter}</Typography>
        </Box>
      ))}
    </Box>
  )
}

function Figure({ value, label, low = false }: { value: number; label: string; low?: boolean }) {
  return (
    <Box sx={{ textAlign: 'right', minWidth: 60 }}>
      <Typography
        sx={{
          fontSize: 'size.big',
          fontWeight: 700,
          lineHeight: 1.1,
          fontVariantNumeric: 'tabular-nums',
          color: low ? ink('madder') : 'inherit',
        }}
      >
        {value}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {label}
      </Typography>
    </Box>
  )
}
