import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { BikeRecord } from '@pelrin/contract'
import { useForecast } from '../workers/useForecast.ts'
import { ForecastChart } from './ForecastChart.tsx'
import { forecastInput } from './forecastInput.ts'
import { WearChart } from './WearChart.tsx'

/** Room the chance's strip and the row of overlays take below the wear. */
const STRIP = 92

/** How the chain on a bike wears: with its forecast where its distance is known, else its readings by date. */
export function ChainWear({
  record,
  height,
  overlays = true,
}: {
  record: BikeRecord
  /** Of the wear itself; the chance's strip comes below. */
  height: number
  overlays?: boolean
}) {
  const { t } = useTranslation()
  const input = forecastInput(record.verdictInput)
  const { picture, pending } = useForecast(input, record.verdictInput?.assumptions)
  if (picture && input)
    return (
      <ForecastChart
        picture={picture}
        usualFactor={input.life.usualFactor}
        unit={record.lastOdometer?.unit ?? 'km'}
        height={height}
        overlays={overlays}
      />
    )
  if (pending)
    return (
      <Box sx={{ height: height + STRIP, display: 'grid', placeItems: 'center', color: 'text.secondary' }}>
        {t('forecast.working')}
      </Box>
    )
  return <WearChart record={record} height={height} />
}
