import { Box, Button, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type InstrumentHistory, type InstrumentVersion } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { day, number, percent } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { standingOf } from './standing.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** What is known of an instrument, what every check changed, and where it disagreed with surer ones. */
export function InstrumentRecord({ history }: { history: InstrumentHistory }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [retiring, setRetiring] = useState(false)
  const { instrument, retiredAt, versions, evidence } = history
  const { text, tone } = standingOf(instrument, retiredAt !== null)
  const signed = (value: number): string => (value > 0 ? `+${number(value, 3)}` : number(value, 3))
  const facts: [string, ReactNode][] = [
    [
      t('gauges.standingIs'),
      <Box component="span" key="s" sx={{ fontWeight: 700, color: tone === null ? 'inherit' : ink(tone) }}>
        {t(`gauges.standing.${text}`, { date: instrument.checkDueOn === null ? '' : day(instrument.checkDueOn) })}
      </Box>,
    ],
    [
      t('gauges.u'),
      instrument.uMm !== null
        ? `${number(instrument.uMm, 2)} mm`
        : instrument.u !== null
          ? `${number(instrument.u, 3)} %`
          : t('gauges.ofKind'),
    ],
    [t('gauges.bias'), `${signed(instrument.bias)} ± ${number(instrument.biasU, 3)} %`],
    ...(instrument.marks === null
      ? []
      : [[t('gauges.marks'), instrument.marks.map(percent).join(' · ')] as [string, ReactNode]]),
    ...(instrument.changeMark === null
      ? []
      : [[t('gauges.changeMark'), `${percent(instrument.changeMark)} %`] as [string, ReactNode]]),
    [t('gauges.material'), t(`material.${instrument.material ?? 'steel'}`)],
    ...(instrument.rollerMm === null
      ? []
      : [[t('gauges.roller'), `${number(instrument.rollerMm, 2)} mm`] as [string, ReactNode]]),
    [t('gauges.rollerWear'), t(instrument.seesRollerWear ? 'why.value.yes' : 'why.value.no')],
    [t('gauges.checked'), instrument.checkedOn === null ? t('stand.never') : day(instrument.checkedOn)],
    ...(history.connection === null ? [] : [[t('gauges.connection'), history.connection] as [string, ReactNode]]),
  ]
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '360px minmax(0, 1fr)' }, gap: 3.5 }}>
      <Box>
        <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: '150px 1fr' }}>
          {facts.map(([name, value]) => (
            <Box key={name} sx={{ display: 'contents' }}>
              <Typography
                component="dt"
                variant="body2"
                color="textSecondary"
                sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}
              >
                {name}
              </Typography>
              <Typography
                component="dd"
                variant="body2"
                sx={{ borderTop: 1, borderColor: 'divider', py: 0.6, m: 0, fontWeight: 600 }}
              >
                {value}
              </Typography>
            </Box>
          ))}
        </Box>
        <Allowed right="instruments">
          <Button onClick={() => setRetiring(true)} sx={{ mt: 1, px: 0.5 }}>
            {t(retiredAt === null ? 'gauges.retire' : 'gauges.takeBack')}
          </Button>
        </Allowed>
        {retiring && (
          <ReasonDialog
            access={endpoints.retireInstrument.access}
            title={t(retiredAt === null ? 'gauges.retire' : 'gauges.takeBack')}
            go={t('app.save')}
            onClose={() => setRetiring(false)}
            onReason={async (reason) => {
              await ask(endpoints.retireInstrument, {
                params: { id: instrument.id },
                body: { retired: retiredAt === null, reason },
                key: v7(),
              })
              await client.invalidateQueries({ queryKey: keys.instruments })
            }}
          />
        )}
      </Box>
      <Box>
        <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 0.5 }}>
          {t('gauges.history')}
        </Typography>
        {versions.map((version, i) => (
          <Version key={version.version} version={version} before={versions[i + 1]} />
        ))}
        <Typography variant="h3" component="h3" color="textSecondary" sx={{ mt: 2.5, mb: 0.5 }}>
          {t('gauges.evidence')}
        </Typography>
        {evidence.length === 0 && (
          <Typography variant="body2" color="textSecondary">
            {t('gauges.noEvidence')}
          </Typography>
        )}
        {evidence.map((one) => (
          <Typography
            key={`${one.bikeId}${one.at}${one.against}`}
            variant="body2"
            sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}
          >
            <Link to={`/bikes/${one.bikeId}`} style={{ color: 'inherit' }}>
              {one.bike}
            </Link>
            , {day(one.at)}:{' '}
            {t(one.bias > 0 ? 'gauges.readMore' : 'gauges.readLess', {
              bias: number(Math.abs(one.bias), 2),
              u: number(one.u, 2),
              other: one.against,
            })}
          </Typography>
        ))}
      </Box>
    </Box>
  )
}

/** What a version changed against the one before it. */
function Version({ version, before }: { version: InstrumentVersion; before: InstrumentVersion | undefined }) {
  const { t } = useTranslation()
  const changes: string[] = []
  if (before) {
    if (before.bias !== version.bias || before.biasU !== version.biasU)
      changes.push(
        t('gauges.changed.bias', {
          from: `${number(before.bias, 3)} ± ${number(before.biasU, 3)}`,
          to: `${number(version.bias, 3)} ± ${number(version.biasU, 3)}`,
        }),
      )
    if (before.u !== version.u || before.uMm !== version.uMm)
      changes.push(
        t('gauges.changed.u', {
          from: before.uMm ?? before.u ?? t('gauges.ofKind'),
          to: version.uMm ?? version.u ?? t('gauges.ofKind'),
        }),
      )
    if (JSON.stringify(before.marks) !== JSON.stringify(version.marks))
      changes.push(t('gauges.changed.marks', { to: version.marks?.map(percent).join(' · ') ?? '–' }))
    if (before.standing !== version.standing) changes.push(t(`gauges.changed.${version.standing}`))
    if (before.changeMark !== version.changeMark)
      changes.push(t('gauges.changed.changeMark', { to: version.changeMark ?? '–' }))
  }
  return (
    <Box
      sx={{ borderTop: 1, borderColor: 'divider', py: 0.75, display: 'grid', gridTemplateColumns: '28px 1fr', gap: 1 }}
    >
      <Typography sx={{ fontWeight: 700 }}>{version.version}</Typography>
      <Box>
        <Typography variant="body2">
          {day(version.validFrom)}, {version.person}: {version.reason}
          {version.checkedHow !== null &&
            `. ${t(`gauges.how.${version.checkedHow}`)}${version.check ? `, ${t('gauges.pairs', { count: version.check.pairs.length })}` : ''}`}
        </Typography>
        {changes.map((change) => (
          <Typography key={change} variant="body2" sx={{ fontWeight: 600 }}>
            {change}
          </Typography>
        ))}
        <Typography variant="body2" color="textSecondary">
          {t('gauges.judgedWith', { count: version.readings })}
        </Typography>
      </Box>
    </Box>
  )
}
