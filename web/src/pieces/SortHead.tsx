import { Box, ButtonBase } from '@mui/material'
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward'
import type { SortWay } from '@pelrin/contract'
import type { Filters } from './useFilters.ts'

/** By which column a list goes, and which way round; undefined: in its usual order. */
export interface Sorted<Column extends string> {
  readonly sort: Column | undefined
  readonly way: SortWay | undefined
}

/** What the address says a list goes by. */
export const sortedIn = <Column extends string>({ among }: Filters, columns: readonly Column[]): Sorted<Column> => {
  const sort = among('sort', columns)
  return { sort, way: sort === undefined ? undefined : (among('way', ['up', 'down'] as const) ?? 'up') }
}

/** The head of a column: pressed, the list goes by it; pressed again, the other way round; a third time, as usual. */
export function SortHead<Column extends string>({
  column,
  label,
  sorted,
  firstWay,
  right = false,
  filters,
  sx,
}: {
  column: Column
  label: string
  sorted: Sorted<Column>
  /** Which way round is asked for first. */
  firstWay: SortWay
  right?: boolean
  filters: Filters
  sx?: Readonly<Record<string, unknown>>
}) {
  const way = sorted.sort === column ? sorted.way : undefined
  const otherWay = firstWay === 'up' ? 'down' : 'up'
  const next = way === undefined ? firstWay : way === firstWay ? otherWay : null
  const Arrow = way === 'down' ? ArrowDownwardIcon : ArrowUpwardIcon
  return (
    <Box
      role="columnheader"
      aria-sort={way === undefined ? 'none' : way === 'up' ? 'ascending' : 'descending'}
      sx={{ minWidth: 0, textAlign: right ? 'right' : 'left', ...sx }}
    >
      <ButtonBase
        onClick={() => filters.set(next === null ? { sort: null, way: null } : { sort: column, way: next })}
        sx={{
          font: 'inherit',
          color: way === undefined ? 'inherit' : 'text.primary',
          minHeight: 40,
          gap: 0.5,
          flexDirection: right ? 'row-reverse' : 'row',
          '& .arrow': { fontSize: 'size.text', opacity: way === undefined ? 0 : 1 },
          '&:hover .arrow': { opacity: 1 },
        }}
      >
        {label}
        <Arrow className="arrow" aria-hidden />
      </ButtonBase>
    </Box>
  )
}
