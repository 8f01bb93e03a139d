import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { spanUMm, KINDS } from '@pelrin/core'
import { v7 } from 'uuid'
import { endpoints, type Study, type StudyResult } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useWrite } from '../../api/useWrite.ts'
import { keys, useInstrument } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { number, percent } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { recordOf } from '../gauges/recordOf.ts'
import { recordFrom } from './recordFrom.ts'
import { StudyPicture } from './StudyPicture.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'

/** What a study says: in words first, then the pictures, then the table it rests on; and writing it to the record. */
export function StudyResultView({ study, result }: { study: Study; result: StudyResult }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 460px' }, gap: 4 }}>
      <Stack sx={{ gap: 2, minWidth: 0 }}>
        {result.kind === 'values' ? <Words result={result} /> : <Marks study={study} result={result} />}
        <StudyPicture study={study} />
      </Stack>
      <Stack sx={{ gap: 2.5 }}>
        {result.kind === 'values' && result.parts && <Parts parts={result.parts} />}
        {result.kind === 'values' && result.anova && <Anova rows={result.anova} />}
        <WriteToRecord study={study} result={result} />
      </Stack>
    </Box>
  )
}

type Values = Extract<StudyResult, { kind: 'values' }>

function Words({ result }: { result: Values }) {
  const { t } = useTranslation()
  const { parts, repeatability, bias, smallestChange, gaps } = result
  return (
    <Stack component="section" aria-label={t('study.says')} sx={{ gap: 0.5 }}>
      {parts && (
        <Typography sx={{ fontSize: 'size.say', fontWeight: 700 }}>
          {t('study.anybody', { change: percent(smallestChange.anybody ?? 0) })}
        </Typography>
      )}
      {repeatability && (
        <Typography>
          {t('study.repeatability', {
            sd: number(repeatability.sd, 3),
            low: number(repeatability.low, 3),
            high: number(repeatability.high, 3),
          })}{' '}
          {smallestChange.samePerson !== null && t('study.samePerson', { change: percent(smallestChange.samePerson) })}
        </Typography>
      )}
      {parts && (
        <Typography>
          {t('study.reproducibility', {
            sd: number(parts.reproducibility.sd, 3),
            low: number(parts.reproducibility.low, 3),
            high: number(parts.reproducibility.high, 3),
          })}
        </Typography>
      )}
      {bias && (
        <Typography>
          {t(bias.value >= 0 ? 'study.biasMore' : 'study.biasLess', {
            bias: number(Math.abs(bias.value), 3),
            u: number(bias.u, 3),
            count: bias.spots,
          })}
        </Typography>
      )}
      {gaps.map((gap) => (
        <Typography key={gap} sx={{ color: ink('brass'), fontWeight: 600 }}>
          {t(`study.gap.${gap}`)}
        </Typography>
      ))}
      {!repeatability && <Typography>{t('study.nothing')}</Typography>}
    </Stack>
  )
}

function Marks({ study, result }: { study: Study; result: Extract<StudyResult, { kind: 'marks' }> }) {
  const { t } = useTranslation()
  const said = (fit: (typeof result)['marks'][number]['fit']): string => {
    switch (fit.state) {
      case 'fitted':
        return t('study.fit.fitted', { at: number(fit.at, 3), u: number(fit.u, 3), sigma: number(fit.sigma, 3) })
      case 'between':
        return t('study.fit.between', { low: percent(fit.low), high: percent(fit.high) })
      case 'beyond':
        return t(`study.fit.${fit.side}`, { wear: percent(fit.wear) })
      case 'nothing':
        return t('study.nothing')
    }
  }
  return (
    <Stack component="section" aria-label={t('study.says')} sx={{ gap: 1.5 }}>
      {result.marks.map(({ mark, fit, byPerson }) => (
        <Box key={mark}>
          <Typography sx={{ fontSize: 'size.say', fontWeight: 700 }}>
            {t('study.markIs', { mark: percent(mark) })} {said(fit)}
          </Typography>
          {byPerson.map((one) => (
            <Typography key={one.personId} variant="body2" color="textSecondary">
              {study.people.find(({ id }) => id === one.personId)?.name}: {said(one.fit)}
            </Typography>
          ))}
        </Box>
      ))}
    </Stack>
  )
}

/** Where the scatter comes from: each part as a bar with its 95 % interval, all on one scale. */
function Parts({ parts }: { parts: NonNullable<Values['parts']> }) {
  const { t } = useTranslation()
  const shown = ['repeatability', 'person', 'interaction', 'gauge', 'spot'] as const
  // The spots are meant to differ: their bar may run off the scale, the gauge's own must be told apart on it.
  const own = shown.filter((one) => one !== 'spot')
  const highest = Math.max(...own.map((one) => Math.min(parts[one].high, parts[one].sd * 3 + 0.01)), 0.02)
  const x = (value: number): number => (100 * Math.min(value, highest)) / highest
  return (
    <Box component="section" aria-label={t('study.parts')}>
      <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
        {t('study.parts')}
      </Typography>
      {shown.map((one) => {
        const { sd, low, high } = parts[one]
        return (
          <Box
            key={one}
            sx={{ display: 'grid', gridTemplateColumns: '150px 1fr 62px', gap: 1, alignItems: 'center', py: 0.4 }}
          >
            <Typography variant="body2">{t(`study.part.${one}`)}</Typography>
            <Box sx={{ position: 'relative', height: 20, bgcolor: ink('blade') }}>
              <Box
                sx={{
                  position: 'absolute',
                  inset: 0,
                  right: 'auto',
                  width: `${x(sd)}%`,
                  bgcolor: ink(one === 'spot' ? 'edge' : 'steel'),
                }}
              />
              <Box
                sx={{
                  position: 'absolute',
                  top: 8.5,
                  height: 3,
                  left: `${x(low)}%`,
                  width: `${Math.max(0.5, x(high) - x(low))}%`,
                  bgcolor: ink('brass'),
                }}
              />
            </Box>
            <Typography variant="body2" sx={{ fontWeight: 700, textAlign: 'right' }}>
              {number(sd, 3)}
            </Typography>
          </Box>
        )
      })}
      <Typography variant="body2" color="textSecondary">
        {t('study.partsNote')}
      </Typography>
    </Box>
  )
}

function Anova({ rows }: { rows: NonNullable<Values['anova']> }) {
  const { t } = useTranslation()
  return (
    <Box component="section" aria-label={t('study.anova')}>
      <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
        {t('study.anova')}
      </Typography>
      <Box
        component="table"
        sx={{
          width: '100%',
          borderCollapse: 'collapse',
          fontSize: 'size.small',
          '& th, & td': { textAlign: 'right', py: 0.4, borderTop: 1, borderColor: 'divider', fontWeight: 'inherit' },
          '& th:first-of-type': { textAlign: 'left' },
          '& thead th': { color: 'text.secondary', borderTop: 0 },
        }}
      >
        <thead>
          <tr>
            <th scope="col">{t('study.source')}</th>
            <th scope="col">{t('study.df')}</th>
            <th scope="col">{t('study.ss')}</th>
            <th scope="col">{t('study.ms')}</th>
            <th scope="col">F</th>
            <th scope="col">p</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ source, df, sumOfSquares, meanSquare, f, p }) => (
            <tr key={source}>
              <th scope="row">{t(`study.sourceOf.${source}`)}</th>
              <td>{df}</td>
              <td>{number(sumOfSquares, 5)}</td>
              <td>{number(meanSquare, 5)}</td>
              <td>{f === null ? '' : number(f, 2)}</td>
              <td>{p === null ? '' : p < 0.001 ? `< ${number(0.001, 3)}` : number(p, 3)}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  )
}

/** On request the result becomes the next version of the instrument's record. */
function WriteToRecord({ study, result }: { study: Study; result: StudyResult }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const history = useInstrument(study.instrument.id)
  const { wrong, write: send } = useWrite({ access: endpoints.reviseInstrument.access, stale: [keys.instruments] })
  const found = recordFrom(result)
  if (!history.data || !found) return null
  const { instrument } = history.data
  const written = history.data.versions.some(({ reason }) => reason === t('study.reason', { title: study.title }))
  const isLength = KINDS[instrument.kind].entry === 'length'
  const write = async (): Promise<void> => {
    const id = v7()
    const u =
      found.u === null
        ? {}
        : isLength
          ? { uMm: Math.round(1000 * spanUMm(found.u, study.pitches ?? 1)) / 1000 }
          : { u: found.u }
    const revised = await send(() =>
      ask(endpoints.reviseInstrument, {
        params: { id: instrument.id },
        body: {
          id,
          fromVersion: instrument.recordVersion,
          ...recordOf(instrument),
          ...u,
          ...(found.bias === null ? {} : { bias: found.bias, biasU: found.biasU }),
          standing: 'in-use',
          reads: found.bias === null ? instrument.reads : 'true',
          check: { how: 'study', pairs: [], referenceU: study.referenceU },
          reason: t('study.reason', { title: study.title }),
        },
        key: id,
      }).then(() => true),
    )
    if (revised) tell(t('gauges.checkSaved'))
  }
  return (
    <Stack component="section" aria-label={t('study.write')} sx={{ gap: 1 }}>
      <Typography variant="body2">
        {[
          found.u === null ? null : t('study.writesU', { u: number(found.u, 3) }),
          found.bias === null
            ? null
            : t('study.writesBias', { bias: number(found.bias, 3), u: number(found.biasU, 3) }),
        ]
          .filter((part) => part !== null)
          .join(' ')}
      </Typography>
      <Allowed right="instruments">
        <Button variant="contained" disabled={written} onClick={() => void write()} sx={{ minHeight: 52 }}>
          {t(written ? 'study.written' : 'study.write')}
        </Button>
      </Allowed>
      {wrong !== null && (
        <Typography role="alert" sx={{ color: ink('madder') }}>
          {wrong.sentence}
        </Typography>
      )}
    </Stack>
  )
}
