import { Box, Checkbox, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { ink } from '../theme/theme.ts'

/** A row of a table with what it would do, in words. */
export interface SaidRow {
  readonly row: number
  readonly name: string
  readonly said: string
  /** Whether it is taken, can be left out, or cannot be taken at all. */
  readonly standing: 'taken' | 'stays' | 'wrong'
}

/** How many rows there are of each outcome. */
export function TableCounts({ counts }: { counts: readonly { n: number; label: string; wrong?: boolean }[] }) {
  return (
    <Stack direction="row" sx={{ gap: 3, flexWrap: 'wrap' }} role="status">
      {counts.map(({ n, label, wrong = false }) => (
        <Typography
          key={label}
          sx={{
            fontWeight: n > 0 ? 700 : 400,
            color: n === 0 ? 'text.secondary' : wrong ? ink('madder') : 'text.primary',
          }}
        >
          {label}
        </Typography>
      ))}
    </Stack>
  )
}

/** Rows with what each would do, as they come; each that would be taken can be left out. */
export function TableRows({
  label,
  groups,
  skip,
  onSkip,
}: {
  label: string
  /** Rows of one outcome each, and how many more of it there are. */
  groups: readonly { readonly rows: readonly SaidRow[]; readonly more: number }[]
  skip: ReadonlySet<number>
  onSkip: (row: number, out: boolean) => void
}) {
  const { t } = useTranslation()
  return (
    <Box sx={{ maxHeight: 300, overflow: 'auto' }} tabIndex={0} role="group" aria-label={label}>
      {groups.map(({ rows, more }, i) => (
        <Box key={i}>
          {rows.map((one) => (
            <Row key={one.row} {...one} out={skip.has(one.row)} onSkip={onSkip} />
          ))}
          {more > 0 && (
            <Typography variant="body2" color="textSecondary" sx={{ py: 0.5 }}>
              {t('tableIn.more', { count: more })}
            </Typography>
          )}
        </Box>
      ))}
    </Box>
  )
}

function Row({
  row,
  name,
  said,
  standing,
  out,
  onSkip,
}: SaidRow & { out: boolean; onSkip: (row: number, out: boolean) => void }) {
  const { t } = useTranslation()
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '48px 76px minmax(0, 200px) minmax(0, 1fr)',
        alignItems: 'center',
        minHeight: 44,
        borderTop: 1,
        borderColor: 'divider',
        columnGap: 1,
      }}
    >
      {standing === 'taken' ? (
        <Checkbox
          checked={!out}
          onChange={(_, on) => onSkip(row, !on)}
          slotProps={{ input: { 'aria-label': t('tableIn.takeThis', { row }) } }}
        />
      ) : (
        <span />
      )}
      <Typography variant="body2" color="textSecondary">
        {t('tableIn.row', { row })}
      </Typography>
      <Typography variant="body2" sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>
        {name}
      </Typography>
      <Typography
        variant="body2"
        sx={{ color: standing === 'wrong' ? ink('madder') : 'inherit', overflowWrap: 'anywhere' }}
      >
        {said}
      </Typography>
    </Box>
  )
}
