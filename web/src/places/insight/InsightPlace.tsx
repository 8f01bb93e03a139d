import { Alert, Box, Button, LinearProgress, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import type { Surface } from '@pelrin/core'
import { endpoints, type Insight, type LearnedGroup, may } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useInsight } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ago, day, number, percent, percentDone, shareText } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { ink } from '../../theme/theme.ts'
import { LifePicture } from './LifePicture.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'

/** What the shop has learned of its chains, and how its forecasts came true. */
export function InsightPlace() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const found = useInsight()
  const {
    wrong,
    busy,
    write: run,
  } = useWrite({ access: endpoints.learn.access, stale: [keys.insight], later: [keys.rack] })
  useTitle(t('insight.title'))
  if (found.isPending) return <Loading />
  if (!found.data) return <Failure error={found.error} again={() => void found.refetch()} />
  const insight = found.data
  const owner = may(session.person.role, 'owner')
  return (
    <Box sx={{ px: 2.75, pt: 1.75, pb: 4, overflow: 'auto', height: { md: '100%' } }}>
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'flex-start', gap: 2, flexWrap: 'wrap' }}
      >
        <Box>
          <Typography variant="h1">{t('insight.title')}</Typography>
          <Typography color="textSecondary">{t('insight.lead')}</Typography>
        </Box>
        {owner && (
          <Button
            variant="contained"
            disabled={busy}
            sx={{ minHeight: 56, px: 3 }}
            onClick={() => {
              const id = v7()
              void run(() => ask(endpoints.learn, { key: id, body: { id }, long: true }))
            }}
          >
            {t(busy ? 'insight.learning' : 'insight.learn')}
          </Button>
        )}
      </Stack>
      {wrong && (
        <Alert severity="error" sx={{ my: 1 }}>
          {wrong.sentence}
        </Alert>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', lg: 'minmax(0, 1.25fr) minmax(0, 1fr)' },
          gap: 4,
          mt: 2,
        }}
      >
        <Box component="section" aria-label={t('insight.life')}>
          <Typography variant="h3" component="h2" color="textSecondary">
            {t('insight.life')}
          </Typography>
          <LifePicture insight={insight} />
          <LifeTable insight={insight} />
          <UnsaidWear insight={insight} />
          <Versions
            insight={insight}
            owner={owner}
            onUndo={(version) => void run(() => ask(endpoints.undoLearning, { key: v7(), body: { version } }))}
          />
        </Box>
        <Stack sx={{ gap: 3.5 }}>
          <Box component="section" aria-label={t('insight.calibration')}>
            <Typography variant="h3" component="h2" color="textSecondary">
              {t('insight.calibration')}
            </Typography>
            <Typography variant="body2" sx={{ mb: 1 }}>
              {t('insight.calibrationLead')}
            </Typography>
            <CalibrationTable insight={insight} />
          </Box>
          <WholeShop
            insight={insight}
            busy={busy}
            onStart={() => {
              const id = v7()
              void run(() => ask(endpoints.forecastShop, { key: id, body: { id } }))
            }}
            onStop={(id) => void run(() => ask(endpoints.cancelForecast, { key: v7(), body: { id } }))}
          />
        </Stack>
      </Box>
    </Box>
  )
}

const CELL = { padding: '7px 10px 7px 0', borderTop: `1px solid ${ink('line')}`, verticalAlign: 'top' } as const
const NUMBER = { ...CELL, textAlign: 'right' as const, fontVariantNumeric: 'tabular-nums' }
const HEAD = {
  padding: '4px 10px 4px 0',
  fontWeight: 500,
  fontSize: 13.5,
  color: ink('faint'),
  textAlign: 'left' as const,
}
const HEAD_NUMBER = { ...HEAD, textAlign: 'right' as const }

function LifeTable({ insight }: { insight: Insight }) {
  const { t } = useTranslation()
  const groups = insight.learned?.groups ?? []
  interface Row extends Pick<Insight['chains'][number], 'care' | 'chains' | 'shipped'> {
    surface: Surface | null
    group: LearnedGroup | null
  }
  const rows = insight.chains.flatMap(({ care, chains, shipped }): Row[] => {
    const own = groups.filter((group) => group.care === care)
    return own.length > 0
      ? own.map((group) => ({ care, surface: group.surface, chains: group.chains, shipped, group }))
      : [{ care, surface: null, chains, shipped, group: null }]
  })
  return (
    <table style={{ borderCollapse: 'collapse', width: '100%', marginTop: 8 }}>
      <thead>
        <tr>
          <th style={HEAD}>{t('insight.care')}</th>
          <th style={HEAD_NUMBER}>{t('insight.chains')}</th>
          <th style={HEAD_NUMBER}>{t('insight.shipped')}</th>
          <th style={HEAD_NUMBER}>{t('insight.learnedLife')}</th>
          <th style={HEAD_NUMBER} title={t('insight.gainWhy')}>
            {t('insight.gain')}
          </th>
          <th style={HEAD} />
        </tr>
      </thead>
      <tbody>
        {rows.map(({ care, surface, chains, shipped, group }) => (
          <tr key={`${care}/${surface ?? ''}`}>
            <td style={CELL}>
              {surface === null
                ? t(`care.${care}`)
                : t('insight.onSurface', { care: t(`care.${care}`), surface: t(`distanceOf.surfaceOf.${surface}`) })}
            </td>
            <td style={NUMBER}>{chains}</td>
            <td style={NUMBER}>{number(shipped.life, 1)}</td>
            <td style={{ ...NUMBER, fontWeight: group?.adopted === true ? 700 : 400 }}>
              {group
                ? `${number(group.life, 1)} (${number(group.lifeRange[0], 1)}–${number(group.lifeRange[1], 1)})`
                : '–'}
            </td>
            <td style={NUMBER}>{group ? number(group.heldOutGain, 2) : '–'}</td>
            <td style={{ ...CELL, fontSize: 13.5, color: ink(group?.adopted === true ? 'steel' : 'faint') }}>
              {group
                ? t(group.adopted ? 'insight.inForce' : 'insight.kept')
                : insight.learned
                  ? t('insight.tooFew')
                  : ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** What was learned of bikes nobody says the surface of. */
function UnsaidWear({ insight: { learned } }: { insight: Insight }) {
  const { t } = useTranslation()
  if (!learned?.unsaid) return null
  const { factor, range, chains, adopted } = learned.unsaid
  return (
    <Typography variant="body2" sx={{ mt: 1 }}>
      {t('insight.unsaid', {
        count: chains,
        factor: number(factor, 2),
        low: number(range[0], 2),
        high: number(range[1], 2),
      })}{' '}
      <b>{t(adopted ? 'insight.inForce' : 'insight.unsaidKept')}</b>
    </Typography>
  )
}

function Versions({ insight, owner, onUndo }: { insight: Insight; owner: boolean; onUndo: (version: number) => void }) {
  const { t } = useTranslation()
  const { learned, versions } = insight
  return (
    <Box sx={{ mt: 1.5 }}>
      {versions.length === 0 && <Typography variant="body2">{t('insight.versionShipped')}</Typography>}
      {versions.slice(0, 5).map(({ version, person, learnedAt, undoneAt }) => (
        <Stack key={version} direction="row" sx={{ alignItems: 'center', gap: 1.5, minHeight: 48 }}>
          <Typography variant="body2" sx={{ textDecoration: undoneAt === null ? 'none' : 'line-through' }}>
            {t('insight.version', { version, person, date: day(learnedAt) })}
          </Typography>
          {undoneAt !== null && <Typography variant="body2">{t('insight.undone', { date: day(undoneAt) })}</Typography>}
          {owner && learned?.version === version && (
            <Allowed right="owner">
              <Button onClick={() => onUndo(version)}>{t('insight.undo', { version })}</Button>
            </Allowed>
          )}
        </Stack>
      ))}
    </Box>
  )
}

function CalibrationTable({ insight }: { insight: Insight }) {
  const { t } = useTranslation()
  if (insight.calibration.length === 0) return <Typography color="textSecondary">{t('insight.noForecasts')}</Typography>
  return (
    <table style={{ borderCollapse: 'collapse', width: '100%' }}>
      <thead>
        <tr>
          <th style={HEAD}>{t('insight.care')}</th>
          <th style={HEAD_NUMBER}>{t('insight.forecasts')}</th>
          <th style={HEAD_NUMBER}>{t('insight.inside')}</th>
          <th style={HEAD_NUMBER}>{t('insight.error')}</th>
          <th style={HEAD_NUMBER}>{t('insight.lineError')}</th>
        </tr>
      </thead>
      <tbody>
        {insight.calibration.map((row) => (
          <tr key={row.care}>
            <td style={CELL}>{t(`care.${row.care}`)}</td>
            <td style={NUMBER}>{row.forecasts}</td>
            <td style={{ ...NUMBER, fontWeight: 700, color: row.inside < 0.8 ? ink('brass') : 'inherit' }}>
              {t('forecast.percent', { value: shareText(row.inside) })}
            </td>
            <td style={NUMBER}>{percent(row.error)} %</td>
            <td style={NUMBER}>{row.lineError === null ? '–' : `${percent(row.lineError)} %`}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function WholeShop({
  insight,
  busy,
  onStart,
  onStop,
}: {
  insight: Insight
  busy: boolean
  onStart: () => void
  onStop: (id: string) => void
}) {
  const { t } = useTranslation()
  const { job } = insight
  const under = job !== null && (job.state === 'running' || job.state === 'waiting')
  return (
    <Box component="section" aria-label={t('insight.wholeShop')}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('insight.wholeShop')}
      </Typography>
      {under ? (
        <Box>
          <Typography aria-live="polite">{t('insight.progress', { done: job.done, of: job.of })}</Typography>
          <LinearProgress
            variant="determinate"
            value={percentDone(job.done, job.of)}
            aria-label={t('insight.wholeShop')}
            sx={{ my: 1 }}
          />
          <Allowed right="forecast">
            <Button variant="outlined" onClick={() => onStop(job.id)}>
              {t('insight.stop')}
            </Button>
          </Allowed>
        </Box>
      ) : (
        <Box>
          <Typography variant="body2" sx={{ mb: 1 }}>
            {job
              ? t('insight.last', {
                  when: job.finishedAt ? ago(job.finishedAt) : '',
                  state: t(`insight.state.${job.state}`),
                  done: job.done,
                  of: job.of,
                })
              : t('insight.never')}
          </Typography>
          <Allowed right="forecast">
            <Button variant="outlined" disabled={busy} onClick={onStart}>
              {t('insight.forecastAll')}
            </Button>
          </Allowed>
        </Box>
      )}
    </Box>
  )
}
