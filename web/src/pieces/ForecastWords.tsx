import { Alert, Box, Stack, Typography } from '@mui/material'
import dayjs from 'dayjs'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import {
  bandAt,
  leftExplained,
  nextExplained,
  type Assumptions,
  type ChainForecast,
  type ChainLife,
  type ForecastPicture,
} from '@pelrin/core'
import { day, dayAfter, distance } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'
import { useChance } from './useChance.ts'
import { Why } from './Why.tsx'

/**
 * A forecast in words, as of now: how far, until when, how sure, and when to look next. What was ridden since it was made
 * is taken off by the usual ride rate; its days were counted from then and stay.
 */
export function ForecastWords({
  forecast,
  life,
  unit,
  now,
  byNow,
  checkOn,
  picture,
  assumed,
}: {
  forecast: ChainForecast
  /** The chain's life the forecast was made from. */
  life: ChainLife
  unit: 'km' | 'mi'
  /** ms since 1970 UTC. */
  now: number
  /** The chance that it is over by now. */
  byNow: number
  /** The day the next look is due, where one is. */
  checkOn: string | null
  /** What it was worked out with, for why; null while that is on its way. */
  picture: ForecastPicture | null
  assumed: Assumptions
}) {
  const { t } = useTranslation()
  const chance = useChance()
  const { withheld, daysLeft } = forecast
  if (withheld !== null)
    return (
      <Alert
        severity="warning"
        icon={false}
        sx={{ bgcolor: 'transparent', border: `1.5px dashed ${ink('brass')}`, color: 'text.primary' }}
      >
        <Typography sx={{ fontWeight: 700, color: ink('brass') }}>{t('forecast.withheld.title')}</Typography>
        <Typography>{t(`forecast.withheld.${withheld}`)}</Typography>
        <Typography variant="body2" sx={{ mt: 0.5 }}>
          {t('forecast.withheld.check')} {t('forecast.withheld.alarm')}
        </Typography>
      </Alert>
    )
  const { kmPerDay, basis } = life.rate
  const since = Math.max(0, dayjs(now).diff(life.at, 'day', true))
  const left = forecast.kmLeft.map((km) => Math.max(0, km - since * kmPerDay))
  const on = (days: number | null): string | null => (days === null ? null : day(dayAfter(life.at, days)))
  const [low, middle, high] = daysLeft.map(on)
  const none = left[1]! <= 0
  const wearNow = picture && bandAt(picture.band, picture.forecast.sNow)
  const told = picture &&
    wearNow && { forecast: picture.forecast, life, readings: picture.observations.length, wearNow: wearNow.middle }
  // A fixed rhythm, or somebody's decision, may have it sooner.
  const byForecast = dayAfter(life.at, forecast.next.days) === checkOn
  // Over by what was read: since when, no forecast can say.
  const already = daysLeft[1] === 0
  const ahead = checkOn === null ? 0 : dayjs(checkOn).diff(now, 'day', true)
  return (
    <Box
      component="dl"
      sx={{ m: 0, display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(168px, 1fr))', gap: 2 }}
      data-testid="forecast"
    >
      <Fact name={t('forecast.left')} large={none ? t('forecast.leftNone') : distance(left[1]!, unit)} alarm={none}>
        {left[2]! > 0 && t('forecast.range', { low: distance(left[0]!, unit), high: distance(left[2]!, unit) })}{' '}
        {told && <Why explanations={[leftExplained(told, now)]} label={t('forecast.left')} />}
      </Fact>
      <Fact
        name={t(none ? 'forecast.reached' : 'forecast.reaches')}
        large={already ? t('forecast.already') : middle ? t('forecast.about', { day: middle }) : t('forecast.byNever')}
        alarm={none}
      >
        {already
          ? t('forecast.alreadyBy', { day: middle ?? '' })
          : low && high
            ? t('forecast.byRange', { low, high })
            : low
              ? t('forecast.byLater', { day: low })
              : ''}
      </Fact>
      <Fact name={t('forecast.chanceNow')} large={chance(byNow)} alarm={byNow >= 0.5}>
        {t('forecast.ratePerWeek', { km: distance(7 * kmPerDay, unit) })}, {t(`forecast.basis.${basis}`)}
      </Fact>
      {checkOn !== null && (
        <Fact name={t('forecast.next')} large={day(checkOn)}>
          {ahead > 0 && kmPerDay > 0 ? t('forecast.nextIn', { km: distance(ahead * kmPerDay, unit) }) : ''}
          {ahead < -1 && t('forecast.nextPassed')}{' '}
          {told && byForecast && <Why explanations={[nextExplained(told, assumed)]} label={t('forecast.next')} />}
        </Fact>
      )}
    </Box>
  )
}

function Fact({
  name,
  large,
  alarm = false,
  children,
}: {
  name: string
  large: string
  alarm?: boolean
  children: ReactNode
}) {
  return (
    <Stack sx={{ borderTop: 1, borderColor: 'divider', pt: 0.75 }}>
      <Typography component="dt" variant="body2" color="textSecondary">
        {name}
      </Typography>
      <Typography
        component="dd"
        sx={{ m: 0, fontSize: 'size.say', fontWeight: 700, lineHeight: 1.2, color: alarm ? ink('madder') : 'inherit' }}
      >
        {large}
      </Typography>
      <Typography component="dd" variant="body2" color="textSecondary" sx={{ m: 0 }}>
        {children}
      </Typography>
    </Stack>
  )
}
