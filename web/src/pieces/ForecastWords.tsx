import { Alert, Box, Stack, Typography } from '@mui/material'
import dayjs from 'dayjs'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { ChainForecast, ChainLife } from '@pelrin/core'
import { day, distance, number } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'

/** A forecast in words: how far, until when, how sure, and when to look next. */
export function ForecastWords({
  forecast,
  life,
  unit,
  checkOn,
}: {
  forecast: ChainForecast
  life: ChainLife
  unit: 'km' | 'mi'
  /** The day the next look is due, where one is. */
  checkOn: string | null
}) {
  const { t } = useTranslation()
  const { withheld, kmLeft, daysLeft, overNow, next } = forecast
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
  const on = (days: number | null): string | null =>
    days === null ? null : day(dayjs(life.at).add(days, 'day').toISOString())
  const [low, middle, high] = daysLeft.map(on)
  const over = kmLeft[1] <= 0
  return (
    <Box
      component="dl"
      sx={{ m: 0, display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(168px, 1fr))', gap: 2 }}
      data-testid="forecast"
    >
      <Fact name={t('forecast.left')} large={over ? t('forecast.leftNone') : distance(kmLeft[1], unit)} alarm={over}>
        {!over && t('forecast.range', { low: distance(kmLeft[0], unit), high: distance(kmLeft[2], unit) })}
      </Fact>
      <Fact name={t('forecast.by')} large={over ? t('forecast.byNow') : (middle ?? t('forecast.byNever'))} alarm={over}>
        {over
          ? t('forecast.byNowWhy', { day: middle })
          : low && high
            ? t('forecast.byRange', { low, high })
            : low
              ? t('forecast.byLater', { day: low })
              : ''}
      </Fact>
      <Fact
        name={t('forecast.chanceNow')}
        large={t('forecast.percent', { value: number(100 * overNow, 0) })}
        alarm={overNow >= 0.5}
      >
        {t('forecast.ratePerWeek', { km: distance(7 * life.rate.kmPerDay, unit) })},{' '}
        {t(`forecast.basis.${life.rate.basis}`)}
      </Fact>
      {checkOn !== null && (
        <Fact name={t('forecast.next')} large={day(checkOn)}>
          {t('forecast.nextIn', { km: distance(next.km, unit) })}
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
        sx={{ m: 0, fontSize: 22, fontWeight: 700, lineHeight: 1.2, color: alarm ? ink('madder') : 'inherit' }}
      >
        {large}
      </Typography>
      <Typography component="dd" variant="body2" color="textSecondary" sx={{ m: 0 }}>
        {children}
      </Typography>
    </Stack>
  )
}
