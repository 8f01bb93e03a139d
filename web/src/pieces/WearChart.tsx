import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import {
  CartesianGrid,
  ErrorBar,
  Label,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  XAxis,
  YAxis,
} from 'recharts'
import type { BikeRecord } from '@pelrin/contract'
import { day, number, percent } from '../messages/format.ts'
import { CHART_AXIS } from './chartAxis.ts'
import { ink } from '../theme/theme.ts'

/** A reading as it is drawn: a point with its u, or the span between a gauge's marks. */
interface Point {
  x: number
  y: number
  /** How far the bar reaches below and above. */
  reach: [number, number]
  isPoint: boolean
  over: boolean
}

/** Steps a distance axis may have, km. */
const STEPS_KM = [100, 200, 250, 500, 1000, 2000, 2500, 5000]
/** How high an open interval is drawn, %: the wear rule's end. */
const OPEN_END = 1.25

/** The present chain's readings, each by its worst point spot; by distance, or by date where none is known. */
function pointsOf(record: BikeRecord): { points: Point[]; byDistance: boolean } {
  const fittingStart = record.chain?.fittedAt ?? ''
  const readings = record.readings.filter((reading) => reading.occurredAt >= fittingStart)
  const byDistance = readings.length > 0 && readings.every((reading) => reading.chainKm !== null)
  const limit = record.summary.limit
  const points = readings.flatMap((reading): Point[] => {
    const x = byDistance ? (reading.chainKm ?? 0) : Date.parse(reading.occurredAt)
    const [worst] = reading.spots.filter((spot) => spot.value !== null).sort((a, b) => (b.value ?? 0) - (a.value ?? 0))
    if (worst?.value != null)
      return [{ x, y: worst.value, reach: [worst.u, worst.u], isPoint: true, over: worst.value > limit }]
    const [gauge] = reading.spots
    if (!gauge) return []
    const low = gauge.over ?? 0
    const high = gauge.under ?? OPEN_END
    const y = (low + high) / 2
    return [{ x, y, reach: [y - low, high - y], isPoint: false, over: low >= limit }]
  })
  return { points: points.sort((a, b) => a.x - b.x), byDistance }
}

/** Round ticks from 0 to a little beyond the furthest reading, km. */
function distanceTicks(points: readonly Point[]): number[] {
  const furthest = Math.max(500, ...points.map((point) => point.x)) * 1.05
  const step = STEPS_KM.find((km) => furthest / km <= 7) ?? 10_000
  return Array.from({ length: Math.ceil(furthest / step) + 1 }, (_, i) => i * step)
}

/** Wear of the chain now on the bike against its limit. */
export function WearChart({ record, height }: { record: BikeRecord; height: number }) {
  const { t } = useTranslation()
  const { points, byDistance } = pointsOf(record)
  const { limit } = record.summary
  const top = Math.max(1, ...points.map((point) => point.y + point.reach[1]), limit * 1.2)
  const highest = Math.ceil(top * 4) / 4
  const kmTicks = byDistance ? distanceTicks(points) : []
  return (
    <Box
      component="figure"
      sx={{ m: 0 }}
      aria-label={t('chart.label', { count: points.length, limit: percent(limit) })}
      role="img"
    >
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', mb: 0.5 }}>
        <Typography variant="h3" component="figcaption" color="textSecondary">
          {t('chart.title')}
        </Typography>
        <Stack direction="row" sx={{ gap: 2, fontSize: 'size.cap', color: 'text.secondary' }}>
          <span>
            <svg width="12" height="16" aria-hidden style={{ verticalAlign: 'middle', marginRight: 5 }}>
              <line x1="6" x2="6" y1="1" y2="15" stroke={ink('ink')} strokeWidth="1.5" />
              <circle cx="6" cy="8" r="4" fill={ink('ink')} />
            </svg>
            {t('chart.reading')}
          </span>
          <span style={{ color: ink('madder') }}>
            <svg width="18" height="16" aria-hidden style={{ verticalAlign: 'middle', marginRight: 5 }}>
              <line x1="0" x2="18" y1="8" y2="8" stroke={ink('madder')} strokeWidth="2" />
            </svg>
            {t('chart.limit', { limit: percent(limit) })}
          </span>
        </Stack>
      </Stack>
      {points.length === 0 ? (
        <Box
          sx={{
            height,
            display: 'grid',
            placeItems: 'center',
            color: 'text.secondary',
            border: 1,
            borderColor: 'divider',
            borderStyle: 'dashed',
          }}
        >
          {t('chart.none')}
        </Box>
      ) : (
        <ResponsiveContainer width="100%" height={height}>
          <ScatterChart margin={{ top: 8, right: 22, bottom: 18, left: 6 }} accessibilityLayer={false}>
            <CartesianGrid stroke={ink('line')} vertical={false} />
            <XAxis
              {...CHART_AXIS}
              type="number"
              dataKey="x"
              {...(byDistance
                ? { domain: [0, kmTicks.at(-1) ?? 0], ticks: kmTicks, padding: { left: 10 } }
                : { domain: ['dataMin', 'dataMax'], padding: { left: 24, right: 24 } })}
              tickFormatter={(value: number) => (byDistance ? number(value, 0) : day(new Date(value).toISOString()))}
            >
              <Label
                value={byDistance ? t('chart.km') : t('chart.date')}
                position="insideBottom"
                offset={-12}
                fill={ink('faint')}
                fontSize={13.5}
              />
            </XAxis>
            <YAxis
              {...CHART_AXIS}
              width={54}
              type="number"
              dataKey="y"
              domain={[0, highest]}
              ticks={Array.from({ length: highest * 4 + 1 }, (_, i) => i / 4)}
              tickFormatter={(value: number) => percent(value)}
            >
              <Label
                value={t('chart.elongation')}
                angle={-90}
                position="insideLeft"
                offset={0}
                fill={ink('faint')}
                fontSize={13.5}
                style={{ textAnchor: 'middle' }}
              />
            </YAxis>
            <ReferenceLine y={limit} stroke={ink('madder')} strokeWidth={2} />
            <Scatter
              data={points}
              isAnimationActive={false}
              shape={({ cx, cy, payload }) => {
                const { isPoint, over } = payload as Point
                const fill = over ? ink('madder') : ink('ink')
                // A gauge's interval has no best value: its bar alone says what is known.
                return isPoint ? <circle cx={cx} cy={cy} r={5.5} fill={fill} /> : <g />
              }}
            >
              <ErrorBar dataKey="reach" direction="y" width={5} strokeWidth={2} stroke={ink('faint')} />
            </Scatter>
          </ScatterChart>
        </ResponsiveContainer>
      )}
    </Box>
  )
}
