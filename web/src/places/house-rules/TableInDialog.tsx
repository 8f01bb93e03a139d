import { Box, Button, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { tableColumns, TablePreview, TableTaken, type TableName, type TableRow } from '@pelrin/contract'
import { useTable } from '../../api/useTable.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { DayOrder } from '../../pieces/DayOrder.tsx'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { TableFile } from '../../pieces/TableFile.tsx'
import { TableCounts, TableRows } from '../../pieces/TableRows.tsx'
import { NamedInstruments } from './NamedInstruments.tsx'
import { TableWritten } from '../../pieces/TableWritten.tsx'

const SCHEMAS = { seen: TablePreview, done: TableTaken }
const OUTCOMES = ['wrong', 'conflict', 'new'] as const
const STANDING = { wrong: 'wrong', conflict: 'stays', new: 'taken' } as const

/** A table of customers, bikes, rides, care or readings comes in: looked at, then taken, all or the chosen rows. */
export function TableInDialog({ name, onClose }: { name: TableName; onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const table = useTable({ look: `/import/${name}/preview`, take: `/import/${name}` }, SCHEMAS)
  const { seen, said: told, skip, busy } = table
  const dayFirst = told['dayFirst'] === undefined ? undefined : told['dayFirst'] === 'yes'
  const unsaid = seen?.days?.order === null && dayFirst === undefined
  const take = async (): Promise<void> => {
    const done = await table.take()
    if (!done) return
    await client.invalidateQueries()
    tell(t('tableIn.done', { ...done }))
    onClose()
  }
  const said = ({ problems, differs }: TableRow): string =>
    [
      ...problems.map(
        ({ field, detail, cell }) => `${field}${cell === '' ? '' : ` “${cell}”`}${field === '' ? '' : ': '}${detail}`,
      ),
      differs
        .map(({ field, here, given }) =>
          t('tableIn.differs', { field, here: here === '' ? t('tableIn.empty') : here, given }),
        )
        .join('; '),
    ].join(' ')
  const unread = seen ? seen.header.filter((column) => !Object.values(seen.mapping).includes(column)) : []
  const taken = seen ? seen.counts.new - skip.size : 0
  return (
    <SheetDialog
      open
      onClose={onClose}
      title={t('tableIn.title', { table: t(`rules.out.table.${name}`) })}
      maxWidth="md"
      fullWidth
    >
      <Stack sx={{ gap: 1.5 }}>
        <Typography>{t('tableIn.lead')}</Typography>
        <Typography component="div">
          {tableColumns(name).map(({ field, required }, i) => (
            <Box component="span" key={field} sx={{ fontWeight: required ? 700 : 400 }}>
              {i === 0 ? '' : ', '}
              {field}
            </Box>
          ))}
        </Typography>
        <TableFile
          name={table.file?.name}
          busy={busy}
          wrong={table.wrong}
          onChoose={(chosen) => void table.look(chosen, null)}
          onStop={table.stop}
        />
        {seen && (
          <>
            <TableWritten written={seen.written} />
            {seen.days && (
              <DayOrder
                days={seen.days}
                dayFirst={dayFirst}
                onSay={(first) =>
                  table.file && void table.look(table.file, seen.mapping, { ...told, dayFirst: first ? 'yes' : 'no' })
                }
              />
            )}
            {seen.instruments.length > 0 && (
              <NamedInstruments
                names={seen.instruments}
                busy={busy}
                onSay={(kinds) => {
                  const before = JSON.parse(told['instruments'] ?? '{}') as object
                  const instruments = JSON.stringify({ ...before, ...kinds })
                  if (table.file) void table.look(table.file, seen.mapping, { ...told, instruments })
                }}
              />
            )}
            {unread.length > 0 && (
              <Typography variant="body2" color="textSecondary">
                {t('tableIn.unread', { columns: unread.join(', ') })}
              </Typography>
            )}
            <TableCounts
              counts={[
                { n: seen.counts.new, label: t('tableIn.newRows', { count: seen.counts.new }) },
                { n: seen.counts.same, label: t('tableIn.sameRows', { count: seen.counts.same }) },
                { n: seen.counts.conflict, label: t('tableIn.conflictRows', { count: seen.counts.conflict }) },
                { n: seen.counts.wrong, label: t('tableIn.wrongRows', { count: seen.counts.wrong }), wrong: true },
              ]}
            />
            <TableRows
              label={t('tableIn.title', { table: t(`rules.out.table.${name}`) })}
              skip={skip}
              onSkip={table.leaveOut}
              groups={OUTCOMES.map((outcome) => {
                const rows = seen.rows.filter((row) => row.outcome === outcome)
                return {
                  rows: rows.map((row) => ({
                    ...row,
                    said: outcome === 'new' ? t('tableIn.isNew') : said(row),
                    standing: STANDING[outcome],
                  })),
                  more: seen.counts[outcome] - rows.length,
                }
              })}
            />
            <Stack direction="row" sx={{ justifyContent: 'flex-end' }}>
              <Button variant="contained" disabled={busy || taken === 0 || unsaid} onClick={() => void take()}>
                {taken === 0 ? t('tableIn.nothing') : t('tableIn.take', { count: taken })}
              </Button>
            </Stack>
          </>
        )}
      </Stack>
    </SheetDialog>
  )
}
