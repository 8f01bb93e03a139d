import {
  Box,
  Button,
  ButtonBase,
  InputAdornment,
  MenuItem,
  Stack,
  TextField,
  ToggleButton,
  Typography,
} from '@mui/material'
import SearchIcon from '@mui/icons-material/Search'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { PART_KINDS } from '@pelrin/core'
import type { CatalogueLine } from '@pelrin/contract'
import { useBike, useCatalogue, useCataloguePart, useSystems } from '../../api/queries.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Empty, Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { ink } from '../../theme/theme.ts'
import { OrderDialog } from '../orders/OrderDialog.tsx'
import { priceText, speedsText } from '../parts/partLook.ts'
import { PartsTabs } from '../parts/PartsTabs.tsx'
import { AddPartDialog } from './AddPartDialog.tsx'
import type { MovementKind } from './Movement.tsx'
import { PartPane } from './PartPane.tsx'
import { TableDialog } from './TableDialog.tsx'
import { useCommands } from '../../keys/useCommands.ts'

const ROW_PX = 52

/** Every part the shop knows: found, counted, changed; on the left the list, on the right the one chosen. */
export function CataloguePlace() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { id } = useParams()
  const [search, setSearch] = useSearchParams()
  const bikeId = search.get('bike') ?? undefined
  const bike = useBike(bikeId)
  const [text, setText] = useState(search.get('q') ?? '')
  const kind = PART_KINDS.find((one) => one === search.get('kind'))
  const low = search.get('low') === 'yes'
  const list = useCatalogue({ q: useDeferredValue(text.trim()), kind, low })
  const systems = useSystems()
  const parts = useMemo(() => list.data?.pages.flatMap((page) => page.parts) ?? [], [list.data])
  const first = list.data?.pages[0]
  const chosenId = id ?? parts[0]?.id
  const item = useCataloguePart(chosenId)
  const [moving, setMoving] = useState<MovementKind | null>(null)
  const [sheet, setSheet] = useState<'add' | 'table' | 'order' | null>(null)
  const scroller = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count: parts.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  })
  const items = rows.getVirtualItems()
  const lastShown = items.at(-1)?.index ?? 0
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = list
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage && lastShown >= parts.length - 20) void fetchNextPage()
  }, [hasNextPage, isFetchingNextPage, fetchNextPage, lastShown, parts.length])
  useTitle(t('catalogue.title'))
  const set = (name: string, value: string | null): void =>
    setSearch(
      (before) => {
        if (value === null || value === '') before.delete(name)
        else before.set(name, value)
        return before
      },
      { replace: true },
    )
  const open = (part: string): void => {
    setMoving(null)
    void navigate({ pathname: `/catalogue/${part}`, search: search.toString() }, { replace: true })
  }
  const step = (by: number): void => {
    const at = parts.findIndex((one) => one.id === chosenId)
    const next = Math.min(parts.length - 1, Math.max(0, at + by))
    const part = parts[next]
    if (!part) return
    open(part.id)
    rows.scrollToIndex(next)
  }
  useCommands('catalogue', {
    up: () => step(-1),
    down: () => step(1),
    pageUp: () => step(-10),
    pageDown: () => step(10),
    add: () => setSheet('add'),
    received: () => setMoving('received'),
    used: () => setMoving('used'),
    counted: () => setMoving('counted'),
    back: bikeId === undefined ? null : () => navigate(`/bikes/${bikeId}/parts`),
  })
  const lowOnes = parts.filter((one) => one.low)
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '440px minmax(0, 1fr)' },
        gridTemplateRows: { md: 'auto minmax(0, 1fr)' },
        height: { md: '100%' },
      }}
    >
      <Stack
        direction="row"
        sx={{
          gridColumn: { md: '1 / 3' },
          justifyContent: 'space-between',
          alignItems: 'center',
          gap: 2,
          px: 2.75,
          pt: 1.5,
          pb: 1,
          flexWrap: 'wrap',
        }}
      >
        <Box>
          <Typography variant="h1">{t('catalogue.title')}</Typography>
        </Box>
        <PartsTabs now="catalogue" bikeId={bikeId} />
        <Box sx={{ flex: 1 }} />
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <KeyButton of="catalogue.add" variant="outlined" onClick={() => setSheet('add')} sx={{ px: 1.5 }}>
            {t('catalogue.add')}
          </KeyButton>
          <Button variant="outlined" onClick={() => setSheet('table')} sx={{ px: 1.5 }}>
            {t('catalogue.in')}
          </Button>
          <Button variant="outlined" component="a" href="/api/v1/catalogue.csv" download sx={{ px: 1.5 }}>
            {t('catalogue.out')}
          </Button>
        </Stack>
      </Stack>
      <Stack sx={{ minHeight: 0, pl: 2.75, pr: { xs: 2.75, md: 1 }, gridRow: { md: 2 } }}>
        <Stack direction="row" sx={{ gap: 1, mb: 1, flexWrap: 'wrap' }}>
          <TextField
            size="small"
            value={text}
            placeholder={t('catalogue.search')}
            onChange={(event) => {
              setText(event.target.value)
              set('q', event.target.value)
            }}
            onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.querySelector('input')?.blur()}
            slotProps={{
              htmlInput: { 'aria-label': t('catalogue.search') },
              input: {
                sx: { height: 48 },
                startAdornment: (
                  <InputAdornment position="start">
                    <SearchIcon fontSize="small" />
                  </InputAdornment>
                ),
              },
            }}
            sx={{ width: 150 }}
          />
          <TextField
            select
            size="small"
            value={kind ?? ''}
            onChange={(event) => set('kind', event.target.value)}
            slotProps={{
              input: { sx: { height: 48 } },
              select: { displayEmpty: true, inputProps: { 'aria-label': t('catalogue.kindField') } },
            }}
            sx={{ width: 140 }}
          >
            <MenuItem value="">{t('catalogue.any')}</MenuItem>
            {PART_KINDS.map((one) => (
              <MenuItem key={one} value={one}>
                {t(`catalogue.kind.${one}`)}
              </MenuItem>
            ))}
          </TextField>
          <ToggleButton
            value="low"
            selected={low}
            color="primary"
            onChange={() => set('low', low ? null : 'yes')}
            sx={{ height: 48, px: 1.25, gap: 0.75, whiteSpace: 'nowrap' }}
          >
            {t('catalogue.low')} <b>{first?.low ?? ''}</b>
          </ToggleButton>
        </Stack>
        {list.isPending ? (
          <Loading />
        ) : !list.data ? (
          <Failure error={list.error} again={() => void list.refetch()} />
        ) : parts.length === 0 ? (
          <Empty>{t('catalogue.none')}</Empty>
        ) : (
          <>
            <Box
              ref={scroller}
              role="listbox"
              aria-label={t('catalogue.title')}
              tabIndex={0}
              sx={{ flex: 1, minHeight: { xs: 300, md: 0 }, maxHeight: { xs: 420, md: 'none' }, overflow: 'auto' }}
            >
              <Box role="presentation" sx={{ position: 'relative', height: rows.getTotalSize() }}>
                {items.map((row) => {
                  const part = parts[row.index]
                  return (
                    part && (
                      <PartRow
                        key={part.id}
                        part={part}
                        top={row.start}
                        chosen={part.id === chosenId}
                        onChoose={() => open(part.id)}
                      />
                    )
                  )
                })}
              </Box>
            </Box>
            <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', py: 0.5, gap: 1 }}>
              <Typography variant="body2" color="textSecondary" aria-live="polite">
                {first && t('catalogue.count', { count: first.total })}
              </Typography>
              {low && lowOnes.length > 0 && (
                <Button variant="contained" onClick={() => setSheet('order')}>
                  {t('catalogue.orderLow')}
                </Button>
              )}
            </Stack>
          </>
        )}
      </Stack>
      <Box
        sx={{
          minWidth: 0,
          minHeight: 0,
          overflow: { md: 'auto' },
          gridRow: { md: 2 },
          px: 2.75,
          pb: 3,
          borderLeft: { md: 1 },
          borderColor: { md: 'divider' },
        }}
      >
        {item.data ? (
          <PartPane
            item={item.data}
            systems={systems.data ?? []}
            bike={bike.data ? { id: bike.data.summary.id, name: bike.data.summary.label } : null}
            moving={moving}
            onMoving={setMoving}
          />
        ) : chosenId === undefined ? (
          <Empty>{t('catalogue.choose')}</Empty>
        ) : item.isPending ? (
          <Loading />
        ) : (
          <Failure error={item.error} again={() => void item.refetch()} />
        )}
      </Box>
      {sheet === 'add' && (
        <AddPartDialog
          systems={systems.data ?? []}
          onAdded={(added) => {
            setSheet(null)
            open(added)
          }}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === 'table' && <TableDialog onClose={() => setSheet(null)} />}
      {sheet === 'order' && (
        <OrderDialog
          wanted={lowOnes.slice(0, 60).map(({ id: partId, maker, name, stock, kept, onOrder, reorderPoint }) => ({
            partId,
            name: `${maker} ${name}`,
            quantity: Math.max(1, reorderPoint + 1 - (stock - kept + onOrder)),
          }))}
          onClose={() => setSheet(null)}
        />
      )}
    </Box>
  )
}

function PartRow({
  part,
  top,
  chosen,
  onChoose,
}: {
  part: CatalogueLine
  top: number
  chosen: boolean
  onChoose: () => void
}) {
  const { t } = useTranslation()
  const { kind, maker, name, speeds, price, stock, kept, onOrder, low } = part
  const standing = [
    ...(kept > 0 ? [`${kept} ${t('catalogue.column.kept').toLowerCase()}`] : []),
    ...(onOrder > 0 ? [`${onOrder} ${t('catalogue.coming').toLowerCase()}`] : []),
  ]
  return (
    <ButtonBase
      role="option"
      aria-selected={chosen}
      tabIndex={-1}
      onClick={onChoose}
      sx={{
        position: 'absolute',
        top,
        left: 0,
        right: 0,
        height: ROW_PX,
        px: 1,
        gap: 1.5,
        justifyContent: 'flex-start',
        textAlign: 'left',
        font: 'inherit',
        borderTop: 1,
        borderColor: 'divider',
        boxShadow: chosen ? `inset 4px 0 ${ink('steel')}` : 'none',
        bgcolor: chosen ? ink('blade') : 'transparent',
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography component="span" noWrap sx={{ display: 'block', fontWeight: chosen ? 700 : 600, lineHeight: 1.2 }}>
          {maker} {name}
        </Typography>
        <Typography
          component="span"
          variant="body2"
          noWrap
          color="textSecondary"
          sx={{ display: 'block', lineHeight: 1.2 }}
        >
          {t(`catalogue.kind.${kind}`)}
          {speeds.length > 0 && `, ${speedsText(speeds, t)}`}
        </Typography>
      </Box>
      <Box sx={{ textAlign: 'right', flexShrink: 0 }}>
        <Typography component="span" sx={{ display: 'block', lineHeight: 1.2 }}>
          {priceText(price, t)}
        </Typography>
        <Typography
          component="span"
          variant="body2"
          sx={{
            display: 'block',
            lineHeight: 1.2,
            color: low ? ink('madder') : 'text.secondary',
            fontWeight: low ? 600 : 400,
          }}
        >
          {[stock === 0 ? t('parts.stockNone') : t('parts.stock', { count: stock }), ...standing].join(', ')}
        </Typography>
      </Box>
    </ButtonBase>
  )
}
