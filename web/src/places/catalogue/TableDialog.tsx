import { Alert, Box, Button, Checkbox, LinearProgress, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { PART_COLUMNS } from '@pelrin/core'
import type { CatalogueImported, CataloguePreview, RowOutcome, TableMapping } from '@pelrin/contract'
import { ProblemError, sendForm } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/Shell.tsx'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { ink } from '../../theme/theme.ts'

/** A table of parts comes in: what its columns are, what every row would do, and then it is taken, all or the chosen rows. */
export function TableDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const input = useRef<HTMLInputElement>(null)
  const [file, setFile] = useState<File | null>(null)
  const [preview, setPreview] = useState<CataloguePreview | null>(null)
  const [mapping, setMapping] = useState<TableMapping>({})
  const [skip, setSkip] = useState<ReadonlySet<number>>(new Set())
  const [busy, setBusy] = useState<AbortController | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const [key, setKey] = useState(() => v7())
  const run = async (job: (signal: AbortSignal) => Promise<void>): Promise<void> => {
    const stop = new AbortController()
    setBusy(stop)
    setWrong(null)
    try {
      await job(stop.signal)
    } catch (error) {
      if (!stop.signal.aborted) setWrong(error instanceof ProblemError ? error.problem.detail : t('app.offline'))
    } finally {
      setBusy(null)
    }
  }
  const read = (from: File, columns: TableMapping | null): Promise<void> =>
    run(async (signal) => {
      const seen = (await sendForm('/catalogue/preview', [from], {
        ...(columns === null ? {} : { fields: { mapping: JSON.stringify(columns) } }),
        signal,
      })) as CataloguePreview
      setPreview(seen)
      setMapping(seen.mapping)
      setSkip(new Set())
      setKey(v7())
    })
  const take = (): Promise<void> =>
    run(async () => {
      if (!file || !preview) return
      const done = (await sendForm('/catalogue/import', [file], {
        key,
        fields: {
          mapping: JSON.stringify(preview.mapping),
          skip: JSON.stringify([...skip]),
          fingerprint: preview.fingerprint,
        },
      })) as CatalogueImported
      await client.invalidateQueries({ queryKey: keys.catalogue })
      tell(t('catalogue.table.done', { ...done }))
      onClose()
    })
  const taken = preview ? preview.counts.new + preview.counts.changed - skip.size : 0
  const remapped = preview !== null && JSON.stringify(mapping) !== JSON.stringify(preview.mapping)
  return (
    <SheetDialog open onClose={onClose} title={t('catalogue.table.title')} maxWidth="md" fullWidth>
      <Stack sx={{ gap: 1.5 }}>
        <Typography>{t('catalogue.table.lead')}</Typography>
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
          <Button variant="outlined" disabled={busy !== null} onClick={() => input.current?.click()}>
            {t('catalogue.table.file')}
          </Button>
          <Typography>{file?.name ?? ''}</Typography>
          <input
            ref={input}
            type="file"
            hidden
            accept=".csv,.tsv,.txt,text/csv"
            aria-label={t('catalogue.table.file')}
            onChange={(event) => {
              const chosen = event.target.files?.[0]
              event.target.value = ''
              if (!chosen) return
              setFile(chosen)
              void read(chosen, null)
            }}
          />
        </Stack>
        {busy && (
          <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
            <LinearProgress aria-label={t('catalogue.table.reading')} sx={{ flex: 1 }} />
            <Button onClick={() => busy.abort()}>{t('app.cancel')}</Button>
          </Stack>
        )}
        {wrong !== null && <Alert severity="error">{wrong}</Alert>}
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
                    label={t(`catalogue.field.${field}`)}
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
                    slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
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
                disabled={busy !== null}
                onClick={() => file && void read(file, mapping)}
                sx={{ alignSelf: 'flex-start' }}
              >
                {t('catalogue.table.look')}
              </Button>
            )}
            <Stack direction="row" sx={{ gap: 3, flexWrap: 'wrap' }} role="status">
              <Count n={preview.counts.new} label={t('catalogue.table.newRows', { count: preview.counts.new })} />
              <Count
                n={preview.counts.changed}
                label={t('catalogue.table.changedRows', { count: preview.counts.changed })}
              />
              <Count n={preview.counts.same} label={t('catalogue.table.sameRows', { count: preview.counts.same })} />
              <Count
                n={preview.counts.wrong}
                label={t('catalogue.table.wrongRows', { count: preview.counts.wrong })}
                colour={preview.counts.wrong > 0 ? ink('madder') : undefined}
              />
            </Stack>
            <Rows
              preview={preview}
              skip={skip}
              onSkip={(row, out) => {
                const next = new Set(skip)
                if (out) next.add(row)
                else next.delete(row)
                setSkip(next)
              }}
            />
            <Stack direction="row" sx={{ justifyContent: 'flex-end' }}>
              <Button
                variant="contained"
                disabled={busy !== null || taken === 0 || remapped}
                onClick={() => void take()}
              >
                {taken === 0 ? t('catalogue.table.nothing') : t('catalogue.table.take', { count: taken })}
              </Button>
            </Stack>
          </>
        )}
      </Stack>
    </SheetDialog>
  )
}

function Count({ n, label, colour }: { n: number; label: string; colour?: string | undefined }) {
  return (
    <Typography sx={{ fontWeight: n > 0 ? 700 : 400, color: colour ?? (n > 0 ? 'text.primary' : 'text.secondary') }}>
      {label}
    </Typography>
  )
}

/** Rows with what each would do; what is wrong stands first, with its cell. */
function Rows({
  preview,
  skip,
  onSkip,
}: {
  preview: CataloguePreview
  skip: ReadonlySet<number>
  onSkip: (row: number, out: boolean) => void
}) {
  const { t } = useTranslation()
  return (
    <Box sx={{ maxHeight: 300, overflow: 'auto' }} tabIndex={0} role="group" aria-label={t('catalogue.table.title')}>
      {(['wrong', 'changed', 'new'] as const).map((outcome) => {
        const rows = preview.rows.filter((row) => row.outcome === outcome)
        const more = preview.counts[outcome] - rows.length
        return (
          <Box key={outcome}>
            {rows.map((row) => (
              <Row key={row.row} row={row} out={skip.has(row.row)} onSkip={onSkip} />
            ))}
            {more > 0 && (
              <Typography variant="body2" color="textSecondary" sx={{ py: 0.5 }}>
                {t('catalogue.table.more', { count: more })}
              </Typography>
            )}
          </Box>
        )
      })}
    </Box>
  )
}

function Row({ row, out, onSkip }: { row: RowOutcome; out: boolean; onSkip: (row: number, out: boolean) => void }) {
  const { t } = useTranslation()
  const said =
    row.outcome === 'wrong'
      ? row.problems.map(
          ({ field, code, cell }) =>
            `${t(`catalogue.field.${field}`)}${cell === '' ? '' : ` “${cell}”`}: ${t(`problems.${code}`)}`,
        )
      : row.changes.map(({ field, from, to }) =>
          t('catalogue.table.change', {
            field: t(`catalogue.field.${field}`),
            from: from === '' ? t('catalogue.table.empty') : from,
            to: to === '' ? t('catalogue.table.empty') : to,
          }),
        )
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
      {row.outcome === 'wrong' ? (
        <span />
      ) : (
        <Checkbox
          checked={!out}
          onChange={(_, on) => onSkip(row.row, !on)}
          slotProps={{ input: { 'aria-label': t('catalogue.table.takeThis', { row: row.row }) } }}
        />
      )}
      <Typography variant="body2" color="textSecondary">
        {t('catalogue.table.row', { row: row.row })}
      </Typography>
      <Typography variant="body2" sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>
        {row.name}
      </Typography>
      <Typography
        variant="body2"
        sx={{ color: row.outcome === 'wrong' ? ink('madder') : 'inherit', overflowWrap: 'anywhere' }}
      >
        {said.join(' ')}
      </Typography>
    </Box>
  )
}
