import { Box, Stack, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { BikeRecord } from '@pelrin/contract'
import { useOtherWear } from '../../api/queries.ts'
import { ago, day, distance, percent, today, unitOf } from '../../messages/format.ts'
import { BikeWays } from '../../pieces/BikeWays.tsx'
import { SchoolWords } from '../../pieces/SchoolWords.tsx'
import { Why } from '../../pieces/Why.tsx'
import { isDue, useCareWords } from '../../pieces/useCareWords.ts'
import { nextLook } from '../../pieces/nextLook.ts'
import { ink } from '../../theme/theme.ts'
import { HomeAsk } from './HomeAsk.tsx'

/** A look that falls due within so many km is settled while the bike is here. */
const SOON_KM = 150

/** What there is to know and settle while the bike is here. */
export function ThisVisit({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const { summary, chain, lastOdometer, verdict } = record
  const unit = unitOf({ lastOdometer })
  const care = useCareWords()
  const next = nextLook(summary, today(), t)
  return (
    <Stack
      component="aside"
      aria-label={t('stand.settle')}
      sx={{
        px: 2.25,
        py: 1.25,
        gap: 3,
        borderLeft: { lg: 1 },
        borderColor: { lg: 'divider' },
        overflow: { md: 'auto' },
      }}
    >
      <Box>
        <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
          {t('stand.settle')}
        </Typography>
        <Row name={t('stand.next')}>
          <Box component="span" sx={{ color: next.overdue ? ink('brass') : 'inherit', fontWeight: 700 }}>
            {next.text}
          </Box>
        </Row>
        {summary.care !== null && (
          <Row name={t('caring.title')}>
            <Box component="span" sx={{ color: isDue(summary.care) ? ink('brass') : 'inherit' }}>
              {care.short(summary.care)}
            </Box>
          </Row>
        )}
        <HomeAsk record={record} />
        {summary.overOn !== null && summary.standing.word !== 'change' && (
          <Row name={t(summary.overOn < today() ? 'forecast.reached' : 'forecast.reaches')}>
            {t('forecast.about', { day: day(summary.overOn) })}
          </Row>
        )}
        <Row name={t('stand.measured')}>{summary.measuredAt === null ? t('stand.never') : ago(summary.measuredAt)}</Row>
        <WornParts bikeId={summary.id} />
        <Row name={t('stand.odometer')}>
          {lastOdometer ? `${distance(lastOdometer.km, unit)}, ${day(lastOdometer.at)}` : t('app.unknown')}
        </Row>
      </Box>
      {chain && (
        <Box>
          <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
            {t('stand.chain')}
          </Typography>
          <Typography sx={{ fontSize: 'size.say', fontWeight: 700, lineHeight: 1.2 }}>{chain.name}</Typography>
          <Typography variant="body2" color="textSecondary">
            {[
              chain.pitches === null ? null : t('stand.pitches', { count: chain.pitches }),
              t(`care.${chain.care}`),
              chain.start === 'fitted' ? t('stand.fitted', { date: day(chain.fittedAt) }) : t('stand.cameWith'),
            ]
              .filter((part) => part !== null)
              .join(', ')}
          </Typography>
          {summary.chainKm !== null && (
            <Typography sx={{ mt: 1 }}>
              <Box component="span" sx={{ fontSize: 'size.head', fontWeight: 700 }}>
                {distance(summary.chainKm, unit)}
              </Box>{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {t('stand.ran')}
              </Box>{' '}
              {record.distanceExplanation && (
                <Why explanations={[record.distanceExplanation]} label={t('stand.chain')} />
              )}
            </Typography>
          )}
        </Box>
      )}
      <BikeWays bikeId={summary.id} stacked />
      {verdict && <SchoolWords verdict={verdict.outcome} stacked />}
    </Stack>
  )
}

/** What else is due on this bike, each with what the last look came to. */
function WornParts({ bikeId }: { bikeId: string }) {
  const { t } = useTranslation()
  const wear = useOtherWear(bikeId)
  return wear.data?.items
    .filter(({ dueKm, result }) => result === 'change' || (dueKm !== null && dueKm <= SOON_KM))
    .map(({ item, result, rotor, minimumMm }) => (
      <Row key={item} name={t(`otherWear.item.${item}`)}>
        <Box component="span" sx={{ color: ink(result === 'change' ? 'madder' : 'brass') }}>
          {rotor && minimumMm !== null
            ? t('stand.rotor', { mm: percent(rotor.now.mm), minimum: percent(minimumMm) })
            : t(result === 'change' ? 'otherWear.result.change' : 'otherWear.dueNow')}
        </Box>
      </Row>
    ))
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Stack
      direction="row"
      sx={{ justifyContent: 'space-between', gap: 2, py: 0.9, borderTop: 1, borderColor: 'divider' }}
    >
      <Typography variant="body2" color="textSecondary">
        {name}
      </Typography>
      <Typography variant="body2" sx={{ fontWeight: 600, textAlign: 'right' }}>
        {children}
      </Typography>
    </Stack>
  )
}
