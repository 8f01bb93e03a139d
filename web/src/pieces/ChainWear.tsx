import { Box } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { estimatedS } from '@pelrin/core'
import type { BikeRecord } from '@pelrin/contract'
import { ForecastChart } from './ForecastChart.tsx'
import type { ChainForecastShown } from './useChainForecast.ts'
import { WearChart } from './WearChart.tsx'
import { unitOf } from '../messages/format.ts'

/** Room the chance's strip and the row of overlays take below the wear. */
const STRIP = 92

/** How the chain on a bike wears: with its forecast where its distance is known, else its readings by date. */
export function ChainWear({
  record,
  forecast: { input, picture, pending },
  height,
  overlays = true,
}: {
  record: BikeRecord
  /** What `useChainForecast` gives for it. */
  forecast: ChainForecastShown
  /** Of the wear itself; the chance's strip comes below. */
  height: number
  overlays?: boolean
}) {
  const { t } = useTranslation()
  const [openedAt] = useState(() => Date.now())
  if (picture && input)
    return (
      <ForecastChart
        picture={picture}
        nowS={estimatedS(input.life, openedAt) ?? picture.forecast.sNow}
        usualFactor={input.life.usualFactor}
        unit={unitOf(record)}
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
