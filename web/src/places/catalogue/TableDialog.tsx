import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { PART_COLUMNS } from '@pelrin/core'
import { CatalogueImported, CataloguePreview, type RowOutcome, type TableMapping } from '@pelrin/contract'
import { keys } from '../../api/queries.ts'
import { useTable } from '../../api/useTable.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { TableFile } from '../../pieces/TableFile.tsx'
import { TableCounts, TableRows } from '../../pieces/TableRows.tsx'
import { problemText, saidOf } from '../../messages/said.ts'

const PATH = { look: '/catalogue/preview', take: '/catalogue/import' }
const SCHEMAS = { seen: CataloguePreview, done: CatalogueImported }
const OUTCOMES = ['wrong', 'changed', 'new'] as const

/** A table of parts comes in: what its columns are, what every row would do, and then it is taken, all or the chosen rows. */
export function TableDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const table = useTable(PATH, SCHEMAS)
  const { file, seen: preview, skip, busy } = table
  const [mapping, setMapping] = useState<TableMapping>({})
  const read = async (from: File, columns: TableMapping | null): Promise<void> => {
    const seen = await table.look(from, columns)
    if (seen) setMapping(seen.mapping)
  }
  const take = async (): Promise<void> => {
    const done = await table.take()
    if (!done) return
    await client.invalidateQueries({ queryKey: keys.catalogue })
    tell(t('catalogue.table.done', { ...done }))
    onClose()
  }
  const said = ({ outcome, problems, changes }: RowOutcome): string =>
    (outcome === 'wrong'
      ? problems.map(
          ({ field, code, cell }) =>
            `${saidOf(t, 'catalogue.field', field)}${cell === '' ? '' : ` “${cell}”`}: ${problemText(t, code)}`,
        )
      : changes.map(({ field, from, to }) =>
          t('catalogue.table.change', {
            field: saidOf(t, 'catalogue.field', field),
            from: from === '' ? t('catalogue.table.empty') : from,
            to: to === '' ? t('catalogue.table.empty') : to,
          }),
        )
    ).join(' ')
  const taken = preview ? preview.counts.new + preview.counts.changed - skip.size : 0
  const remapped = preview !== null && JSON.stringify(mapping) !== JSON.stringify(preview.mapping)
  return (
    <SheetDialog open onClose={onClose} title={t('catalogue.table.title')} maxWidth="md" fullWidth>
      <Stack sx={{ gap: 1.5 }}>
        <Typography>{t('catalogue.table.lead')}</Typography>
        <TableFile
          name={file?.name}
          busy={busy}
          wrong={table.wrong}
          onChoose={(chosen) => void read(chosen, null)}
          onStop={table.stop}
        />
        {preview && (
          <>
            <Box component="details">
              <Typography component="summary" sx={{ fontWeight: 600, cursor: 'pointer', minHeight: 32 }}>
                {t('catalogue.table.columns')}
              </Typography>
              <Box
                sx={{
                  display: 'grid',
                  gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(4, 1fr)' },
                  gap: 1.25,
                  pt: 1.5,
                }}
              >
                {PART_COLUMNS.map((field) => (
                  <TextField
                    key={field}
                    select
                    size="small"
                    label={saidOf(t, 'catalogue.field', field)}
                    value={mapping[field] ?? ''}
                    onChange={(event) =>
                      setMapping(
                        Object.fromEntries(
                          Object.entries({ ...mapping, [field]: event.target.value }).filter(
                            ([, column]) => column !== '',
                          ),
                        ),
                      )
                    }
                    slotProps={{ select: { displayEmpty: true } }}
                  >
                    <MenuItem value="">{t('catalogue.table.columnNone')}</MenuItem>
                    {preview.header.map((column) => (
                      <MenuItem key={column} value={column}>
                        {column}
                      </MenuItem>
                    ))}
                  </TextField>
                ))}
              </Box>
            </Box>
            {remapped && (
              <Button
                variant="contained"
                disabled={busy}
                onClick={() => file && void read(file, mapping)}
                sx={{ alignSelf: 'flex-start' }}
              >
                {t('catalogue.table.look')}
              </Button>
            )}
            <TableCounts
              counts={[
                { n: preview.counts.new, label: t('catalogue.table.newRows', { count: preview.counts.new }) },
                {
                  n: preview.counts.changed,
                  label: t('catalogue.table.changedRows', { count: preview.counts.changed }),
                },
                { n: preview.counts.same, label: t('catalogue.table.sameRows', { count: preview.counts.same }) },
                {
                  n: preview.counts.wrong,
                  label: t('catalogue.table.wrongRows', { count: preview.counts.wrong }),
                  wrong: true,
                },
              ]}
            />
            <TableRows
              label={t('catalogue.table.title')}
              skip={skip}
              onSkip={table.leaveOut}
              groups={OUTCOMES.map((outcome) => {
                const rows = preview.rows.filter((row) => row.outcome === outcome)
                return {
                  rows: rows.map((row) => ({
                    ...row,
                    said: said(row),
                    standing: outcome === 'wrong' ? ('wrong' as const) : ('taken' as const),
                  })),
                  more: preview.counts[outcome] - rows.length,
                }
              })}
            />
            <Stack direction="row" sx={{ justifyContent: 'flex-end' }}>
              <Button variant="contained" disabled={busy || taken === 0 || remapped} onClick={() => void take()}>
                {taken === 0 ? t('tableIn.nothing') : t('tableIn.take', { count: taken })}
              </Button>
            </Stack>
          </>
        )}
      </Stack>
    </SheetDialog>
  )
}
