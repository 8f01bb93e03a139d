import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { BikeRecord, Disagreement, Reading, SpotMark } from '@pelrin/contract'
import { number } from '../../messages/format.ts'
import { takenText } from '../../pieces/takenText.ts'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'

/** Two readings of this chain that cannot both be right, on one wear rule: whose bias, which to go by, what settles it. */
export function AtOdds({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const [widest] = record.disagreements
  if (!widest) return null
  const readingOf = (id: string): Reading | undefined => record.readings.find((reading) => reading.id === id)
  const a = readingOf(widest.a)
  const b = readingOf(widest.b)
  if (!a || !b) return null
  const nameOf = (reading: Reading): string =>
    widest.apart === 'instruments' ? reading.instrument.name : (reading.reader ?? reading.person)
  const trusted = widest.trust === a.id ? a : widest.trust === b.id ? b : null
  const doubted = trusted === null ? null : trusted === a ? b : a
  const [takenA, takenB] = [takenText(a.conditions, t), takenText(b.conditions, t)]
  return (
    <Box
      component="section"
      aria-label={t('bike.atOdds')}
      sx={{ border: `1.5px solid ${ink('brass')}`, borderRadius: 0.5, p: 1.5, bgcolor: ink('sheet') }}
    >
      <Typography variant="h3" component="h2" sx={{ color: ink('brass'), mb: 0.5 }}>
        {t('bike.atOdds')}
      </Typography>
      <Box sx={{ maxWidth: 560 }}>
        {[a, b].map((reading) => (
          <Box
            key={reading.id}
            sx={{ display: 'grid', gridTemplateColumns: '150px minmax(0, 1fr)', gap: 1, alignItems: 'center' }}
          >
            <Typography variant="body2" sx={{ fontWeight: reading === trusted ? 700 : 400 }}>
              {nameOf(reading)}
            </Typography>
            <WearRule
              size="medium"
              marks={marksOf(reading)}
              limit={record.summary.limit}
              colour={reading === trusted ? ink('steel') : ink('brass')}
            />
          </Box>
        ))}
      </Box>
      <Typography variant="body2" sx={{ mt: 0.5 }}>
        {t('bike.gapInstruments', {
          a: nameOf(a),
          b: nameOf(b),
          gap: number(Math.abs(widest.gap), 2),
          u: number(widest.u, 2),
          more: t(widest.gap > 0 ? 'bike.more' : 'bike.less'),
        })}{' '}
        {widest.places.length > 0 ? t('bike.onPlaces', { places: widest.places.join(', ') }) : t('bike.onOthers')}{' '}
        {takenA !== takenB && t('bike.takenApart', { a: nameOf(a), b: nameOf(b), takenA, takenB })}{' '}
        <b>{t(`bike.trust.${widest.because}`, { name: trusted === null ? '' : nameOf(trusted) })}</b>
      </Typography>
      <Settling widest={widest} doubted={doubted} />
    </Box>
  )
}

function Settling({ widest, doubted }: { widest: Disagreement; doubted: Reading | null }) {
  const { t } = useTranslation()
  return (
    <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.25 }}>
      {widest.settle.map((settle) => (
        <Typography component="li" variant="body2" key={settle}>
          {t(`bike.settleBy.${settle}`, { name: doubted?.instrument.name ?? '' })}{' '}
          {settle === 'check-on-strip' && doubted && (
            <Link to={`/gauges/${doubted.instrument.id}`} style={{ color: 'inherit' }}>
              {t('bike.checkIt')}
            </Link>
          )}
        </Typography>
      ))}
    </Box>
  )
}

const marksOf = (reading: Reading): SpotMark[] =>
  reading.spots.map(({ value, over, under, u }) => ({ value, over, under, u, worst: true }))
