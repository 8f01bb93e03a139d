import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { assumptionsWith, whatItSees } from '@pelrin/core'
import type { InstrumentHistory } from '@pelrin/contract'
import { number, percent } from '../../messages/format.ts'

/** Whether it is worth having: what it costs in time, what it can and cannot see, and when it is worn or bent. */
export function WhatItTells({ history }: { history: InstrumentHistory }) {
  const { t } = useTranslation()
  const { instrument, assumptions } = history
  const { kind } = instrument
  const seen = whatItSees(instrument, assumptionsWith(assumptions))
  const guide = t(`gauges.guide.${kind}`, { returnObjects: true })
  const lines: [string, string][] = [
    [
      t('gauges.tells.time'),
      seen
        ? t(kind === 'full-length' ? 'gauges.tells.timeWhole' : 'gauges.tells.timeRound', {
            minutes: number(seen.minutes, seen.minutes % 1 === 0 ? 0 : 1),
          })
        : t('gauges.tells.timeNone'),
    ],
    [
      t('gauges.tells.sees'),
      [
        guide.sees,
        seen?.marks === null ? t('gauges.tells.change', { change: percent(seen.smallestChange) }) : null,
        seen?.marks && seen.marks.length > 0
          ? t('gauges.tells.marks', {
              marks: seen.marks.map(percent).join(', '),
              top: percent(seen.marks.at(-1) ?? 0),
            })
          : null,
      ]
        .filter(Boolean)
        .join(' '),
    ],
    [
      t('gauges.tells.cannot'),
      [guide.cannot, instrument.seesRollerWear && t('gauges.tells.rollers')].filter(Boolean).join(' '),
    ],
    [t('gauges.tells.worn'), guide.worn],
    [t('gauges.tells.worth'), guide.worth],
  ]
  return (
    <Box component="section" aria-labelledby="what-it-tells" sx={{ mt: 3 }}>
      <Typography id="what-it-tells" variant="h3" component="h3" color="textSecondary" sx={{ mb: 0.5 }}>
        {t('gauges.tells.title')}
      </Typography>
      <Box
        component="dl"
        sx={{ m: 0, display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '170px minmax(0, 1fr)' }, maxWidth: 900 }}
      >
        {lines.map(([name, said]) => (
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
              sx={{ m: 0, borderTop: { sm: 1 }, borderColor: { sm: 'divider' }, py: 0.6 }}
            >
              {said}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  )
}
