import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { assumptionsWith, pricesOf, realKm, spentByDistance } from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { distance, moneyOf, number, percent, shareText, unitOf } from '../../messages/format.ts'
import type { ChainForecastShown } from '../../pieces/useChainForecast.ts'
import { ownPricesOf } from '../../pieces/ownPricesOf.ts'
import { CostCurve } from './CostCurve.tsx'

const PARTS = ['chain', 'cassette', 'rings'] as const

/** What the chain has done to the sprockets, and what waiting costs. */
export function WaitingCosts({
  record,
  forecast: { input, costs },
}: {
  record: BikeRecord
  /** What `useChainForecast` gives for it, with costs. */
  forecast: ChainForecastShown
}) {
  const { t } = useTranslation()
  if (!costs || !input) return null
  const { sprockets, together, waiting, bySpeeds } = costs
  const prices = pricesOf(ownPricesOf(record), assumptionsWith(record.assumptions).economics)
  const unit = unitOf(record)
  const real = (s: number): number => realKm(s, input.life.usualFactor)
  const { advice } = record.summary
  const share = (value: number): string => t('forecast.percent', { value: shareText(value) })
  return (
    <Box component="section" aria-label={t('waiting.title')}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('waiting.title')}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: 'minmax(0, 1fr) minmax(0, 1fr)' }, gap: 3 }}>
        <CostCurve waiting={waiting} bySpeeds={bySpeeds} worn={record.summary.median} />
        <Stack sx={{ gap: 1 }}>
          <Typography>
            {t('waiting.cheapest', {
              at: percent(waiting.cheapest.elongation),
              cost: moneyOf(waiting.cheapest.costPer1000),
            })}
          </Typography>
          <Typography>{t('waiting.next500', { cost: moneyOf(waiting.next500) })}</Typography>
          <Typography variant="body2" color="textSecondary">
            {t('waiting.pricesOf', {
              prices: PARTS.map((part) => {
                const own = record.ownPrices[part]
                return own
                  ? t('waiting.own', {
                      part: t(`waiting.part.${part}`),
                      price: moneyOf(prices[part]),
                      name: own.name,
                    })
                  : t('waiting.shops', { part: t(`waiting.part.${part}`), price: moneyOf(prices[part]) })
              }).join(', '),
            })}
          </Typography>
          {waiting.efficiencyLost !== null && (
            <Typography variant="body2" color="textSecondary">
              {t('waiting.efficiency', { lost: number(waiting.efficiencyLost, 1) })}
            </Typography>
          )}
          <Typography variant="h3" component="h3" color="textSecondary" sx={{ mt: 0.5 }}>
            {t('waiting.sprockets')}
          </Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.5, '& li': { mb: 0.5 } }}>
            <Typography component="li" variant="body2">
              {t(advice ? 'waiting.byMark' : 'waiting.byMarkNot')}
            </Typography>
            <Typography component="li" variant="body2">
              {sprockets.over[2] <= 0
                ? t('waiting.neverOver', { used: share(sprockets.used[1]) })
                : t('waiting.over', {
                    middle: distance(real(sprockets.over[1]), unit),
                    low: distance(real(sprockets.over[0]), unit),
                    high: distance(real(sprockets.over[2]), unit),
                    used: share(sprockets.used[1]),
                    usedLow: share(sprockets.used[0]),
                    usedHigh: share(sprockets.used[2]),
                  })}
            </Typography>
            {together.chains + together.untold > 1 && (
              <Typography component="li" variant="body2">
                {t('waiting.together', {
                  count: together.chains,
                  middle: distance(real(together.over[1]), unit),
                  low: distance(real(together.over[0]), unit),
                  high: distance(real(together.over[2]), unit),
                  used: share(together.used[1]),
                  usedLow: share(together.used[0]),
                  usedHigh: share(together.used[2]),
                })}
                {together.untold > 0 && ` ${t('waiting.untold', { count: together.untold })}`}
              </Typography>
            )}
            <Typography component="li" variant="body2">
              {t('waiting.proof')}
            </Typography>
          </Box>
          <Typography variant="body2" sx={{ fontWeight: 600 }}>
            {t(
              advice
                ? 'waiting.restsOnMark'
                : spentByDistance(together)
                  ? 'waiting.restsOnDistance'
                  : 'waiting.restsOnNothing',
            )}
          </Typography>
        </Stack>
      </Box>
    </Box>
  )
}
