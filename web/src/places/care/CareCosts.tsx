import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import {
  careCosts,
  careSteps,
  pricesOf,
  standardMinutes,
  TREATMENTS,
  yearOf,
  type Assumptions,
  type CareJob,
  type Treatment,
} from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { distance, hoursText, moneyOf, number, unitOf } from '../../messages/format.ts'
import { ownPricesOf } from '../../pieces/ownPricesOf.ts'
import { ink } from '../../theme/theme.ts'

/** What each way of care comes to in a year of this bike's own riding: chains, cassettes, what goes on, and the time it takes. */
export function CareCosts({
  record,
  assumed,
  job,
  atHome,
}: {
  record: BikeRecord
  assumed: Assumptions
  /** How its chain is cared for, whichever way. */
  job: Omit<CareJob, 'care' | 'cleaning' | 'checkFirst'>
  /** Whoever rides it treats it: the time costs the shop nothing. */
  atHome: boolean
}) {
  const { t } = useTranslation()
  const { verdictInput, summary } = record
  const life = verdictInput?.life
  if (!life || life.rate.kmPerDay <= 0) return null
  const minutes = Object.fromEntries(
    TREATMENTS.map((care) => [
      care,
      // As it is done again and again: what it had before is the same.
      standardMinutes(careSteps({ ...job, care, before: care, cleaning: 'wipe', checkFirst: false })),
    ]),
  ) as Record<Treatment, number>
  const rows = careCosts(
    {
      kmPerDay: life.rate.kmPerDay,
      wearFactor: life.usualFactor,
      careFactor: verdictInput.careFactor ?? assumed.distance.careFactorUnknown,
      limit: summary.limit,
      prices: pricesOf(ownPricesOf(record), assumed.economics),
      minutes,
    },
    assumed,
  )
  const cheapest = Math.min(...rows.map((row) => yearOf(row, atHome)))
  return (
    <Box component="section" aria-labelledby="care-costs" sx={{ pt: 1 }}>
      <Typography id="care-costs" variant="h3" component="h2" color="textSecondary">
        {t('caring.costs.title', { km: distance(life.rate.kmPerDay * 365, unitOf(record)) })}
      </Typography>
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="group" aria-labelledby="care-costs">
        <Box
          component="table"
          sx={{
            width: '100%',
            borderCollapse: 'collapse',
            fontVariantNumeric: 'tabular-nums',
            '& th, & td': { textAlign: 'right', py: 0.5, px: 0.75, borderTop: 1, borderColor: 'divider' },
            '& th:first-of-type': { textAlign: 'left' },
            '& thead th': { fontWeight: 400, color: 'text.secondary', borderTop: 0 },
          }}
        >
          <thead>
            <tr>
              {(['care', 'times', 'chains', 'wear', 'product', 'time', 'year'] as const).map((one) => (
                <th key={one} scope="col">
                  {t(`caring.costs.${one}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const year = yearOf(row, atHome)
              return (
                <Box
                  component="tr"
                  key={row.care}
                  sx={year === cheapest ? { fontWeight: 700, color: ink('steel') } : {}}
                >
                  <Box component="th" scope="row" sx={{ fontWeight: 'inherit' }}>
                    {t(`care.${row.care}`)}
                    {year === cheapest && `, ${t('caring.costs.least')}`}
                  </Box>
                  <td>{number(row.treatments, 0)}</td>
                  <td>{number(row.chains, 1)}</td>
                  <td>{moneyOf(row.wear)}</td>
                  <td>{moneyOf(row.product)}</td>
                  <td>{t('caring.costs.hours', { hours: hoursText(row.minutes), cost: moneyOf(row.labour) })}</td>
                  <td>{moneyOf(year)}</td>
                </Box>
              )
            })}
          </tbody>
        </Box>
      </Box>
      <Typography variant="body2" color="textSecondary">
        {t(atHome ? 'caring.costs.noteHome' : 'caring.costs.note')}
      </Typography>
    </Box>
  )
}
