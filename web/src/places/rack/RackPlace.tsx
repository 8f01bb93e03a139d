import {
  Box,
  InputAdornment,
  MenuItem,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import SearchIcon from '@mui/icons-material/Search'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { RackState, type BikeSummary } from '@pelrin/contract'
import { useRack, type RackFilter } from '../../api/queries.ts'
import { usePutOnStand } from '../../app/usePutOnStand.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Empty, Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { RACK_COLUMNS, RackRow } from './RackRow.tsx'
import { useCommands } from '../../keys/useCommands.ts'

const ROW_PX = 48

/** Every bike, soonest trouble first. */
export function RackPlace() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const [text, setText] = useState(search.get('q') ?? '')
  const state = RackState.options.find((option) => option === search.get('state'))
  const drive = (['derailleur', 'hub-gear', 'single-speed'] as const).find((kind) => kind === search.get('drive'))
  const filter: RackFilter = { q: useDeferredValue(text.trim()), state, drive }
  const rack = useRack(filter)
  const putOnStand = usePutOnStand()
  const bikes = useMemo(() => rack.data?.pages.flatMap((page) => page.bikes) ?? [], [rack.data])
  const first = rack.data?.pages[0]
  const [chosen, setChosen] = useState(0)
  const scroller = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count: bikes.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  })
  const items = rows.getVirtualItems()
  const lastShown = items.at(-1)?.index ?? 0
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = rack
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage && lastShown >= bikes.length - 20) void fetchNextPage()
  }, [hasNextPage, isFetchingNextPage, fetchNextPage, lastShown, bikes.length])
  useTitle(t('place.rack'))

  const set = (name: string, value: string | null): void => {
    setChosen(0)
    setSearch(
      (before) => {
        if (value === null || value === '') before.delete(name)
        else before.set(name, value)
        return before
      },
      { replace: true },
    )
  }
  const step = (by: number): void => {
    const next = Math.min(bikes.length - 1, Math.max(0, chosen + by))
    setChosen(next)
    rows.scrollToIndex(next)
  }
  const open = (bike: BikeSummary | undefined): void => {
    if (bike) void navigate(`/bikes/${bike.id}`)
  }
  const bike = bikes[chosen]
  useCommands('rack', {
    up: () => step(-1),
    down: () => step(1),
    pageUp: () => step(-12),
    pageDown: () => step(12),
    put: bike ? () => putOnStand(bike.id) : null,
    record: bike ? () => navigate(`/bikes/${bike.id}`) : null,
    measure: bike ? () => navigate(`/bikes/${bike.id}/measure`) : null,
    tags: () => navigate(`/tags?${search}`),
    newBike: () => navigate('/new-bike'),
  })

  return (
    <Stack sx={{ height: '100%', px: 2.25, pt: 1.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap', mb: 1.25 }}>
        <Typography variant="h2" component="h1">
          {t('rack.title')}
        </Typography>
        <Typography color="textSecondary" aria-live="polite">
          {first && t('rack.count', { count: first.total })}
        </Typography>
        <Box sx={{ flex: 1 }} />
        <KeyButton of="rack.newBike" component={Link} to="/new-bike" variant="outlined">
          {t('newBike.add')}
        </KeyButton>
        <KeyButton of="rack.tags" component={Link} to={`/tags?${search}`} variant="outlined">
          {t('tags.sheet')}
        </KeyButton>
      </Stack>
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap', mb: 1.25, alignItems: 'center' }}>
        <TextField
          size="small"
          value={text}
          onChange={(event) => {
            setText(event.target.value)
            set('q', event.target.value)
          }}
          placeholder={t('rack.filter')}
          slotProps={{
            htmlInput: { 'aria-label': t('rack.filter') },
            input: {
              sx: { height: 48, width: 262 },
              startAdornment: (
                <InputAdornment position="start">
                  <SearchIcon fontSize="small" />
                </InputAdornment>
              ),
            },
          }}
          onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.querySelector('input')?.blur()}
        />
        <ToggleButtonGroup
          exclusive
          color="primary"
          value={state ?? 'all'}
          aria-label={t('rack.verdict')}
          onChange={(_, value: string | null) => set('state', value === 'all' ? null : value)}
          sx={{ flexWrap: 'wrap' }}
        >
          {(['all', ...RackState.options] as const).map((option) => (
            <ToggleButton key={option} value={option} sx={{ height: 48, px: 1.75, fontSize: 15.5, gap: 1 }}>
              {option === 'all' ? t('rack.all') : t(`rack.state.${option}`)}
              <Box component="span" sx={{ fontWeight: 500, opacity: 0.85 }}>
                {first?.counts[option] ?? ''}
              </Box>
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <TextField
          select
          size="small"
          value={drive ?? ''}
          onChange={(event) => set('drive', event.target.value)}
          slotProps={{
            input: { sx: { height: 48, minWidth: 150 } },
            select: { displayEmpty: true, inputProps: { 'aria-label': t('rack.drive') } },
          }}
        >
          <MenuItem value="">{t('rack.anyDrive')}</MenuItem>
          {(['derailleur', 'hub-gear', 'single-speed'] as const).map((kind) => (
            <MenuItem key={kind} value={kind}>
              {t(`driveKind.${kind}`)}
            </MenuItem>
          ))}
        </TextField>
      </Stack>
      {rack.isPending ? (
        <Loading />
      ) : !rack.data ? (
        <Failure error={rack.error} again={() => void rack.refetch()} />
      ) : bikes.length === 0 ? (
        <Empty>{t('rack.none')}</Empty>
      ) : (
        <Box
          ref={scroller}
          role="table"
          aria-rowcount={first?.total ?? bikes.length}
          aria-label={t('rack.title')}
          tabIndex={0}
          sx={{ flex: 1, minHeight: 200, overflow: 'auto', borderTop: 1, borderColor: 'divider', mx: -2.25 }}
        >
          <Box
            role="rowgroup"
            sx={{
              position: 'sticky',
              top: 0,
              zIndex: 1,
              bgcolor: 'background.default',
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <Box
              role="row"
              sx={{
                display: 'grid',
                gridTemplateColumns: RACK_COLUMNS,
                px: 2.25,
                py: 0.75,
                gap: 1.5,
                color: 'text.secondary',
                fontSize: 14,
                fontWeight: 600,
              }}
            >
              {(['bike', 'drive', 'verdict', 'wear', 'chance', 'ran', 'measured', 'next'] as const).map((column) => (
                <Box
                  key={column}
                  role="columnheader"
                  sx={{ textAlign: column === 'chance' || column === 'ran' ? 'right' : 'left' }}
                >
                  {t(`rack.${column}`)}
                </Box>
              ))}
            </Box>
          </Box>
          <Box role="rowgroup" sx={{ position: 'relative', height: rows.getTotalSize() }}>
            {items.map((item) => {
              const bike = bikes[item.index]
              return (
                bike && (
                  <RackRow
                    key={bike.id}
                    bike={bike}
                    index={item.index}
                    top={item.start}
                    height={ROW_PX}
                    chosen={item.index === chosen}
                    onChoose={() => setChosen(item.index)}
                    onOpen={() => open(bike)}
                  />
                )
              )
            })}
          </Box>
          {isFetchingNextPage && (
            <Typography role="status" color="textSecondary" sx={{ p: 2, textAlign: 'center' }}>
              {t('rack.more')}
            </Typography>
          )}
        </Box>
      )}
    </Stack>
  )
}
