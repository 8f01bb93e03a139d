import {
  Alert,
  Box,
  Button,
  FormControlLabel,
  LinearProgress,
  MenuItem,
  Stack,
  Switch,
  TextField,
  Typography,
} from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { SURFACES, type Surface } from '@pelrin/core'
import { endpoints, type CsvMapping, type RideImport } from '@pelrin/contract'
import { ask, AwayError, ProblemError, upload } from '../../api/client.ts'
import { keys, useImports } from '../../api/queries.ts'
import { ago, clock, day, distance, number } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { useLedgerWrite } from './useLedgerWrite.ts'

const ACCEPTED = '.gpx,.tcx,.fit,.csv,.zip'

/** Rides from files: read by the server, shown with what would come of each, written when somebody says so. */
export function ImportPane({ bikeId, unit }: { bikeId: string; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const input = useRef<HTMLInputElement>(null)
  const imports = useImports(bikeId)
  const [sending, setSending] = useState(false)
  const [wrong, setWrong] = useState<string | null>(null)
  const current = imports.data?.find(({ state }) => state === 'reading' || state === 'previewed')
  const send = async (files: readonly File[]): Promise<void> => {
    if (files.length === 0) return
    setSending(true)
    setWrong(null)
    try {
      await upload(`/bikes/${bikeId}/imports`, files, v7())
    } catch (error) {
      setWrong(
        error instanceof ProblemError
          ? error.problem.detail
          : error instanceof AwayError
            ? t('app.offline')
            : t('app.fault'),
      )
    } finally {
      setSending(false)
      await client.invalidateQueries({ queryKey: keys.imports(bikeId) })
    }
  }
  return (
    <Box component="section" aria-label={t('imports.title')}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('imports.title')}
      </Typography>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {t('imports.lead')}
      </Typography>
      {!current && (
        <Box
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault()
            void send([...event.dataTransfer.files])
          }}
          sx={{ border: `1.5px dashed ${ink('faint')}`, p: 1.5, display: 'flex', alignItems: 'center', gap: 1.5 }}
        >
          <Button variant="outlined" disabled={sending} onClick={() => input.current?.click()} sx={{ minHeight: 48 }}>
            {t('imports.choose')}
          </Button>
          <Typography variant="body2" color="textSecondary">
            {t('imports.drop')}
          </Typography>
          <input
            ref={input}
            type="file"
            multiple
            hidden
            accept={ACCEPTED}
            aria-label={t('imports.choose')}
            onChange={(event) => {
              const files = [...(event.target.files ?? [])]
              event.target.value = ''
              void send(files)
            }}
          />
        </Box>
      )}
      {sending && <LinearProgress sx={{ mt: 1 }} />}
      {wrong && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {wrong}
        </Alert>
      )}
      {current && <Current key={current.id} bikeId={bikeId} current={current} unit={unit} />}
      <Past imports={(imports.data ?? []).filter((one) => one !== current)} />
    </Box>
  )
}

function Current({ bikeId, current, unit }: { bikeId: string; current: RideImport; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { busy, wrong, write } = useLedgerWrite(bikeId)
  const [surface, setSurface] = useState<Surface | ''>('')
  const fresh = current.lines.filter(({ outcome }) => outcome === 'new').length
  const again = (): Promise<void> => client.invalidateQueries({ queryKey: keys.imports(bikeId) })
  return (
    <Stack sx={{ gap: 1.25, mt: 1 }}>
      {current.state === 'reading' ? (
        <Box>
          <Typography variant="body2" aria-live="polite">
            {t('imports.reading', { done: current.done, files: current.files })}
          </Typography>
          <LinearProgress
            variant="determinate"
            value={(100 * current.done) / Math.max(1, current.files)}
            aria-label={t('imports.title')}
          />
        </Box>
      ) : (
        current.tables
          .filter(({ mapping }) => mapping === null)
          .map((table) => <Columns key={table.file} current={current} table={table} onMapped={again} />)
      )}
      <Lines current={current} unit={unit} />
      {wrong[''] && <Alert severity="error">{wrong['']}</Alert>}
      {current.state === 'previewed' && fresh > 0 && (
        <TextField
          select
          size="small"
          label={t('imports.surface')}
          value={surface}
          onChange={(event) => setSurface(event.target.value as Surface | '')}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">{t('distanceOf.surfaceOf.unknown')}</MenuItem>
          {SURFACES.map((one) => (
            <MenuItem key={one} value={one}>
              {t(`distanceOf.surfaceOf.${one}`)}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Stack direction="row" sx={{ gap: 1 }}>
        {current.state === 'previewed' && (
          <Button
            variant="contained"
            disabled={busy || fresh === 0}
            sx={{ minHeight: 48 }}
            onClick={() =>
              void write(async () => {
                await ask(endpoints.confirmImport, {
                  params: { id: current.id },
                  key: `${current.id}-write`,
                  body: { surface: surface === '' ? null : surface },
                })
                await again()
              })
            }
          >
            {fresh === 0 ? t('imports.nothing') : t('imports.confirm', { count: fresh })}
          </Button>
        )}
        <Button
          variant="outlined"
          sx={{ minHeight: 48 }}
          onClick={() =>
            void ask(endpoints.cancelImport, { params: { id: current.id }, key: `${current.id}-stop`, body: {} }).then(
              again,
              again,
            )
          }
        >
          {t('imports.cancel')}
        </Button>
      </Stack>
    </Stack>
  )
}

/** What came of each file, those that want looking at first. */
function Lines({ current, unit }: { current: RideImport; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const order = { refused: 0, new: 1, known: 2 } as const
  const lines = [...current.lines].sort((a, b) => order[a.outcome] - order[b.outcome])
  if (lines.length === 0) return null
  return (
    <Box
      component="ul"
      aria-label={t('imports.lines')}
      sx={{ listStyle: 'none', m: 0, p: 0, maxHeight: 360, overflow: 'auto' }}
      tabIndex={0}
    >
      {lines.map((line, i) => (
        <Box
          component="li"
          key={`${line.file}/${line.row ?? ''}/${i}`}
          sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}
        >
          <Stack direction="row" sx={{ justifyContent: 'space-between', gap: 1 }}>
            <Typography variant="body2" sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>
              {line.file}
              {line.row !== undefined && `, ${t('imports.row', { row: line.row })}`}
            </Typography>
            <Typography
              variant="body2"
              sx={{
                fontWeight: 700,
                whiteSpace: 'nowrap',
                color:
                  line.outcome === 'refused' ? ink('madder') : line.outcome === 'new' ? ink('steel') : 'text.secondary',
              }}
            >
              {t(`imports.outcome.${line.outcome}`)}
            </Typography>
          </Stack>
          <Typography variant="body2" color="textSecondary">
            {line.km !== undefined && line.startedAt !== undefined
              ? `${day(line.startedAt)}, ${clock(line.startedAt)}, ${distance(line.km, unit)}, ${number(line.minutes ?? 0, 0)} min`
              : t(`imports.code.${line.code}`)}
            {line.outcome === 'known' && `. ${t(`imports.code.${line.code}`)}`}
            {(line.gaps ?? 0) + (line.jumps ?? 0) > 0 &&
              `. ${t('imports.left', { gaps: line.gaps, jumps: line.jumps })}`}
          </Typography>
        </Box>
      ))}
    </Box>
  )
}

const COLUMNS = ['start', 'distance', 'duration', 'surface', 'title'] as const

/** Says what the columns of a table mean. */
function Columns({
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
  const [dayFirst, setDayFirst] = useState(true)
  const [wrong, setWrong] = useState<string | null>(null)
  const save = async (): Promise<void> => {
    const mapping: CsvMapping = {
      start: columns.start,
      distance: columns.distance,
      unit,
      dayFirst,
      ...(columns.duration === '' ? {} : { duration: columns.duration }),
      ...(columns.surface === '' ? {} : { surface: columns.surface }),
      ...(columns.title === '' ? {} : { title: columns.title }),
    }
    try {
      await ask(endpoints.mapColumns, { params: { id: current.id }, key: v7(), body: { file: table.file, mapping } })
      await onMapped()
    } catch (error) {
      setWrong(
        error instanceof ProblemError ? (error.problem.fields?.[0]?.detail ?? error.problem.detail) : t('app.offline'),
      )
    }
  }
  return (
    <Box sx={{ border: 1, borderColor: 'divider', p: 1.25, display: 'grid', gap: 1 }}>
      <Typography sx={{ fontWeight: 600 }}>{t('imports.columns', { file: table.file })}</Typography>
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
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
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
        <FormControlLabel
          control={<Switch checked={dayFirst} onChange={(_, on) => setDayFirst(on)} />}
          label={t('imports.dayFirst')}
        />
      </Stack>
      {wrong && <Alert severity="error">{wrong}</Alert>}
      <Button
        variant="contained"
        disabled={columns.start === '' || columns.distance === ''}
        onClick={() => void save()}
        sx={{ minHeight: 48 }}
      >
        {t('imports.useColumns')}
      </Button>
      <Typography variant="body2" color="textSecondary">
        {t('imports.remembered')}
      </Typography>
    </Box>
  )
}

function Past({ imports }: { imports: readonly RideImport[] }) {
  const { t } = useTranslation()
  if (imports.length === 0) return null
  return (
    <Box sx={{ mt: 1.25 }}>
      {imports.slice(0, 5).map((one) => {
        const count = (outcome: string): number => one.lines.filter((line) => line.outcome === outcome).length
        return (
          <Typography key={one.id} variant="body2" color="textSecondary">
            {ago(one.startedAt)}: {t(`imports.state.${one.state}`)},{' '}
            {t('imports.counts', { new: count('new'), known: count('known'), refused: count('refused') })}
          </Typography>
        )
      })}
    </Box>
  )
}
