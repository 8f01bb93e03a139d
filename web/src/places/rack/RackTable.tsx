import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { RackSort, SortWay } from '@pelrin/contract'
import { SortHead } from '../../pieces/SortHead.tsx'
import { RACK_COLUMNS, RACK_ROOM, RackRow } from './RackRow.tsx'
import { ROW_PX, type RackList } from './useRackPlace.ts'

/** Columns as they stand, and which way round each is asked for: the one to look at first on top. */
const COLUMNS: readonly (readonly [RackSort | 'verdict', SortWay])[] = [
  ['bike', 'up'],
  ['drive', 'up'],
  ['verdict', 'up'],
  ['wear', 'down'],
  ['chance', 'down'],
  ['ran', 'down'],
  ['measured', 'up'],
  ['next', 'up'],
]

/** The bikes, each in its row. */
export function RackTable({ list, filters, sorted, chosen, setChosen }: RackList) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { rows, first, scroller, drawn, heightPx, comingMore } = list
  return (
    <Box
      ref={scroller}
      role="table"
      aria-rowcount={first?.total ?? rows.length}
      aria-label={t('rack.title')}
      tabIndex={0}
      sx={{
        flex: 1,
        minHeight: 200,
        overflow: 'auto',
        borderTop: 1,
        borderColor: 'divider',
        mx: -2.25,
        '@media (max-height: 420px)': { maxHeight: '80dvh' },
        '@media print': { page: 'wide', zoom: 0.8 },
      }}
    >
      <Box
        role="rowgroup"
        sx={{ position: 'sticky', top: 0, zIndex: 1, bgcolor: 'background.default', minWidth: 'min-content' }}
      >
        <Box
          role="row"
          sx={{
            display: 'grid',
            gridTemplateColumns: RACK_COLUMNS,
            alignItems: 'center',
            px: 2.25,
            gap: 1.5,
            color: 'text.secondary',
            typography: 'h3',
            borderBottom: 1,
            borderColor: 'divider',
          }}
        >
          {COLUMNS.map(([column, firstWay]) =>
            column === 'verdict' ? (
              <Box role="columnheader" key={column}>
                {t('rack.verdict')}
              </Box>
            ) : (
              <SortHead
                key={column}
                column={column}
                label={t(`rack.${column}`)}
                sorted={sorted}
                firstWay={firstWay}
                right={column === 'chance' || column === 'ran'}
                filters={filters}
                sx={RACK_ROOM[column]}
              />
            ),
          )}
        </Box>
      </Box>
      <Box role="rowgroup" sx={{ position: 'relative', height: heightPx, minWidth: 'min-content' }}>
        {drawn.map(({ index, start }) => {
          const bike = rows[index]
          return (
            bike && (
              <RackRow
                key={bike.id}
                bike={bike}
                index={index}
                top={start}
                height={ROW_PX}
                chosen={index === chosen}
                onChoose={() => setChosen(index)}
                onOpen={() => void navigate(`/bikes/${bike.id}`)}
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
