import { Box, Link, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link as RouterLink, useNavigate } from 'react-router'
import type { CustomerSort, ListedCustomer, SortWay } from '@pelrin/contract'
import { ago, day, today } from '../../messages/format.ts'
import { SortHead } from '../../pieces/SortHead.tsx'
import { ink } from '../../theme/theme.ts'
import { ROW_PX, type CustomersList } from './useCustomersPlace.ts'

const COLUMNS: readonly (readonly [CustomerSort, SortWay])[] = [
  ['name', 'up'],
  ['bikes', 'down'],
  ['last', 'down'],
  ['next', 'up'],
]
/** On a phone who and how many bikes; beyond that when they were here, when next, how they are reached. */
const ROOM = {
  xs: 'minmax(0, 1fr) 64px',
  sm: 'minmax(180px, 1.4fr) 64px 140px 140px',
  lg: 'minmax(220px, 1.4fr) 72px 160px 160px minmax(260px, 1.4fr)',
}
const SHOWN = {
  name: {},
  bikes: {},
  last: { display: { xs: 'none', sm: 'block' } },
  next: { display: { xs: 'none', sm: 'block' } },
  reach: { display: { xs: 'none', lg: 'block' } },
} as const

/** The customers, each in their row. */
export function CustomersTable({ list, filters, sorted, chosen, setChosen }: CustomersList) {
  const { t } = useTranslation()
  const { rows, first, scroller, drawn, heightPx, comingMore } = list
  return (
    <Box
      ref={scroller}
      role="table"
      aria-label={t('customer.list')}
      aria-rowcount={first?.total ?? rows.length}
      tabIndex={0}
      sx={{ flex: 1, minHeight: 200, overflow: 'auto', borderTop: 1, borderColor: 'divider', mx: -2.25 }}
    >
      <Box role="rowgroup" sx={{ position: 'sticky', top: 0, zIndex: 1, bgcolor: 'background.default' }}>
        <Box
          role="row"
          sx={{
            display: 'grid',
            gridTemplateColumns: ROOM,
            alignItems: 'center',
            px: 2.25,
            gap: 1.5,
            color: 'text.secondary',
            typography: 'h3',
            borderBottom: 1,
            borderColor: 'divider',
          }}
        >
          {COLUMNS.map(([column, firstWay]) => (
            <SortHead
              key={column}
              column={column}
              label={t(`customer.column.${column}`)}
              sorted={sorted}
              firstWay={firstWay}
              filters={filters}
              sx={SHOWN[column]}
            />
          ))}
          <Box role="columnheader" sx={SHOWN.reach}>
            {t('customer.column.reach')}
          </Box>
        </Box>
      </Box>
      <Box role="rowgroup" sx={{ position: 'relative', height: heightPx }}>
        {drawn.map(({ index, start }) => {
          const customer = rows[index]
          return (
            customer && (
              <Row
                key={customer.id}
                customer={customer}
                index={index}
                top={start}
                chosen={index === chosen}
                onChoose={() => setChosen(index)}
              />
            )
          )
        })}
      </Box>
      {comingMore && (
        <Typography role="status" color="textSecondary" sx={{ p: 2, textAlign: 'center' }}>
          {t('rack.more')}
        </Typography>
      )}
    </Box>
  )
}

function Row({
  customer: { id, name, phone, email, optedOut, bikes, lastOn, nextOn },
  index,
  top,
  chosen,
  onChoose,
}: {
  customer: ListedCustomer
  index: number
  top: number
  chosen: boolean
  onChoose: () => void
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  return (
    <Box
      role="row"
      aria-rowindex={index + 2}
      aria-selected={chosen}
      onClick={onChoose}
      onDoubleClick={() => void navigate(`/customers/${id}`)}
      sx={{
        position: 'absolute',
        left: 0,
        right: 0,
        top,
        height: ROW_PX,
        display: 'grid',
        gridTemplateColumns: ROOM,
        alignItems: 'center',
        gap: 1.5,
        px: 2.25,
        borderBottom: 1,
        borderColor: 'divider',
        boxShadow: chosen ? `inset 5px 0 ${ink('steel')}` : 'none',
        bgcolor: chosen ? 'background.paper' : 'transparent',
        '& > [role=cell]': { minWidth: 0 },
      }}
    >
      <Box role="cell">
        <Link
          component={RouterLink}
          to={`/customers/${id}`}
          noWrap
          sx={{ fontWeight: 700, display: 'block', py: 1.25 }}
        >
          {name}
        </Link>
      </Box>
      <Typography role="cell">{bikes}</Typography>
      <Typography role="cell" noWrap sx={SHOWN.last}>
        {lastOn === null ? '–' : ago(`${lastOn}T12:00:00Z`)}
      </Typography>
      <Typography
        role="cell"
        noWrap
        sx={{
          ...SHOWN.next,
          ...(nextOn !== null && nextOn < today() ? { fontWeight: 700, color: ink('madder') } : {}),
        }}
      >
        {nextOn === null ? '–' : day(nextOn)}
      </Typography>
      <Typography role="cell" noWrap color="textSecondary" sx={SHOWN.reach}>
        {optedOut
          ? t('customer.optedOut')
          : [phone, email].filter((one) => one !== null).join(', ') || t('customer.noReach')}
      </Typography>
    </Box>
  )
}
