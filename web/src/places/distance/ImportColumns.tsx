import { Alert, Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type CsvMapping, type RideImport } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useWrite } from '../../api/useWrite.ts'
import { DayOrder } from '../../pieces/DayOrder.tsx'
import { TableWritten } from '../../pieces/TableWritten.tsx'
import { ink } from '../../theme/theme.ts'

const COLUMNS = ['start', 'distance', 'duration', 'surface', 'title'] as const

/** Says what the columns of a table mean. */
export function ImportColumns({
  current,
  table,
  onMapped,
}: {
  current: RideImport
  table: RideImport['tables'][number]
  onMapped: () => Promise<void>
}) {
  const { t } = useTranslation()
  const guess = (pattern: RegExp): string => table.header.find((name) => pattern.test(name)) ?? ''
  const [columns, setColumns] = useState<Record<(typeof COLUMNS)[number], string>>({
    start: guess(/date|start|begin|datum|time/i),
    distance: guess(/dist|km|mile/i),
    duration: guess(/dur|elapsed|moving|minutes|end/i),
    surface: guess(/surface|weather/i),
    title: guess(/name|title/i),
  })
  const [unit, setUnit] = useState<'km' | 'mi'>(/mi(le|\b)/i.test(columns.distance) ? 'mi' : 'km')
  const [said, setSaid] = useState<boolean | undefined>()
  // As the file itself tells, else as somebody says; a day that says its own order needs neither.
  const days = table.days[columns.start]
  const dayFirst = said ?? (days === undefined ? true : days.order === null ? undefined : days.order === 'day-first')
  const { wrong, write } = useWrite({ access: endpoints.mapColumns.access })
  const save = async (): Promise<void> => {
    if (dayFirst === undefined) return
    const mapping: CsvMapping = {
      start: columns.start,
      distance: columns.distance,
      unit,
      dayFirst,
      ...(columns.duration === '' ? {} : { duration: columns.duration }),
      ...(columns.surface === '' ? {} : { surface: columns.surface }),
      ...(columns.title === '' ? {} : { title: columns.title }),
    }
    await write(async () => {
      await ask(endpoints.mapColumns, { params: { id: current.id }, key: v7(), body: { file: table.file, mapping } })
      await onMapped()
    })
  }
  return (
    <Box sx={{ border: 1, borderColor: 'divider', p: 1.25, display: 'grid', gap: 1 }}>
      <Typography sx={{ fontWeight: 600 }}>{t('imports.columns', { file: table.file })}</Typography>
      {table.written && <TableWritten written={table.written} />}
      <Box sx={{ overflow: 'auto' }} tabIndex={0} role="group" aria-label={table.file}>
        <table style={{ borderCollapse: 'collapse', fontSize: 13.5 }}>
          <thead>
            <tr>
              {table.header.map((name) => (
                <th
                  key={name}
                  style={{ textAlign: 'left', padding: '2px 8px', borderBottom: `1px solid ${ink('line')}` }}
                >
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row, i) => (
              <tr key={i}>
                {row.map((cell, j) => (
                  <td key={j} style={{ padding: '2px 8px', whiteSpace: 'nowrap' }}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
      {COLUMNS.map((column) => (
        <TextField
          key={column}
          select
          size="small"
          label={t(`imports.column.${column}`)}
          value={columns[column]}
          onChange={(event) => setColumns({ ...columns, [column]: event.target.value })}
          slotProps={{ select: { displayEmpty: true } }}
        >
          {column !== 'start' && column !== 'distance' && <MenuItem value="">{t('imports.column.none')}</MenuItem>}
          {table.header.map((name) => (
            <MenuItem key={name} value={name}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      ))}
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
        <TextField
          select
          size="small"
          label={t('imports.unit')}
          value={unit}
          onChange={(event) => setUnit(event.target.value as 'km' | 'mi')}
          sx={{ width: 90 }}
        >
          <MenuItem value="km">km</MenuItem>
          <MenuItem value="mi">mi</MenuItem>
        </TextField>
      </Stack>
      {days && <DayOrder days={days} dayFirst={said} onSay={setSaid} />}
      {wrong && <Alert severity="error">{wrong.sentence}</Alert>}
      <Button
        variant="contained"
        disabled={columns.start === '' || columns.distance === '' || dayFirst === undefined}
        onClick={() => void save()}
      >
        {t('imports.useColumns')}
      </Button>
      <Typography variant="body2" color="textSecondary">
        {t('imports.remembered')}
      </Typography>
    </Box>
  )
}
