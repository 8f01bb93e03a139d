import { Alert, Box, Button, LinearProgress, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import type { Surface } from '@pelrin/core'
import { endpoints, type RideImport } from '@pelrin/contract'
import { ask, AwayError, ProblemError, sendForm } from '../../api/client.ts'
import { keys, useImports } from '../../api/queries.ts'
import { ago, percentDone } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { ImportColumns } from './ImportColumns.tsx'
import { ImportLines } from './ImportLines.tsx'
import { SurfaceSelect } from './SurfaceSelect.tsx'
import { useLedgerWrite } from './useLedgerWrite.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

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
      await sendForm(`/bikes/${bikeId}/imports`, files, { key: v7() })
    } catch (error) {
      setWrong(
        error instanceof ProblemError
          ? error.problem.detail
          : error instanceof AwayError
            ? t('app.notSaved')
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
          <Allowed right="distance">
            <Button variant="outlined" disabled={sending} onClick={() => input.current?.click()}>
              {t('imports.choose')}
            </Button>
          </Allowed>
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
  const { busy, at, write } = useLedgerWrite(bikeId)
  const [surface, setSurface] = useState<Surface | null>(null)
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
            value={percentDone(current.done, current.files)}
            aria-label={t('imports.title')}
          />
        </Box>
      ) : (
        current.tables
          .filter(({ mapping }) => mapping === null)
          .map((table) => <ImportColumns key={table.file} current={current} table={table} onMapped={again} />)
      )}
      <ImportLines current={current} unit={unit} />
      {at('') && <Alert severity="error">{at('')}</Alert>}
      {current.state === 'previewed' && fresh > 0 && (
        <SurfaceSelect size="small" label={t('imports.surface')} value={surface} onChange={setSurface} />
      )}
      <Stack direction="row" sx={{ gap: 1 }}>
        {current.state === 'previewed' && (
          <Allowed right="distance">
            <Button
              variant="contained"
              disabled={busy || fresh === 0}
              onClick={() =>
                void write(async () => {
                  await ask(endpoints.confirmImport, {
                    params: { id: current.id },
                    key: `${current.id}-write`,
                    body: { surface },
                  })
                  await again()
                })
              }
            >
              {fresh === 0 ? t('imports.nothing') : t('imports.confirm', { count: fresh })}
            </Button>
          </Allowed>
        )}
        <Allowed right="distance">
          <Button
            variant="outlined"
            onClick={() =>
              void ask(endpoints.cancelImport, {
                params: { id: current.id },
                key: `${current.id}-stop`,
                body: {},
              }).then(again, again)
            }
          >
            {t('imports.cancel')}
          </Button>
        </Allowed>
      </Stack>
    </Stack>
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
