import { Box, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import {
  Area,
  CartesianGrid,
  ComposedChart,
  ErrorBar,
  Label,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from 'recharts'
import { KM_PER_MILE, type ForecastPicture, type WearObservation } from '@pelrin/core'
import { number, percent, shareText } from '../messages/format.ts'
import { CHART_AXIS } from './chartAxis.ts'
import { ink } from '../theme/theme.ts'

/** The two usual ways, drawn over the forecast when asked for. */
type Overlay = 'line' | 'alone'

/** Steps a distance axis may have. */
const STEPS = [50, 100, 200, 250, 500, 1000, 2000, 2500, 5000]
/** How high an open interval is drawn, %: the wear rule's end. */
const OPEN_END = 1.25

/** A reading as it is drawn: a point with its u, or the span between a gauge's marks. */
const drawn = (observation: WearObservation) => {
  if ('value' in observation)
    return { y: observation.value, reach: [observation.u, observation.u] as [number, number], isPoint: true }
  const { over = 0, under = OPEN_END } = observation
  const y = (over + under) / 2
  return { y, reach: [y - over, under - y] as [number, number], isPoint: false }
}

/**
 * How a chain wears: readings with their uncertainty, the band its wear runs in, its limit, the chance of being over,
 * and where to look next. Distances are of the bike's usual mix, in its own unit.
 */
export function ForecastChart({
  picture,
  nowS,
  usualFactor,
  unit,
  height,
  overlays = true,
}: {
  picture: ForecastPicture
  /** What the chain has run by now, thousand weighted km: what was ridden as usual since the last entry taken in. */
  nowS: number
  usualFactor: number
  unit: 'km' | 'mi'
  height: number
  overlays?: boolean
}) {
  const { t } = useTranslation()
  const [shown, setShown] = useState<Overlay[]>([])
  const { forecast, band, chance, observations } = picture
  const { limit, withheld } = forecast
  const perS = 1000 / usualFactor / (unit === 'mi' ? KM_PER_MILE : 1)
  const x = (s: number): number => s * perS
  const end = x(picture.to)
  const points = observations.map((observation) => ({ x: x(observation.s), ...drawn(observation) }))
  const highest = Math.ceil(Math.max(limit * 1.6, ...points.map(({ y, reach }) => y + reach[1])) * 4) / 4
  const rise = highest > 1.25 ? 0.5 : 0.25
  const clip = (value: number): number => Math.min(highest, Math.max(0, value))
  const run = withheld === null ? band : []
  const rows = run.map((point) => ({
    x: x(point.s),
    band: [clip(point.low), clip(point.high)],
    middle: point.middle <= highest ? point.middle : undefined,
  }))
  const along = alongTo(end)
  // A chain ridden beyond what is drawn stands at its end.
  const now = Math.min(end, x(nowS))
  const next = x(forecast.next.s)
  const straight = shown.includes('line') && picture.straightLine !== null ? picture.straightLine : null
  const last = points.findLast(({ isPoint }) => isPoint)
  return (
    <Box
      component="figure"
      sx={{ m: 0 }}
      role="group"
      aria-label={t(withheld === null ? 'forecast.label' : 'forecast.labelWithheld', {
        count: points.length,
        limit: percent(limit),
        km: number(x(forecast.crossing[1]), 0),
        unit,
      })}
    >
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'center', flexWrap: 'wrap', gap: 1, mb: 0.25 }}
      >
        <Typography variant="h3" component="figcaption" color="textSecondary">
          {t('chart.title')}
        </Typography>
        <Legend limit={limit} forecast={withheld === null} />
      </Stack>
      <Box role="img" aria-label={t('chart.title')}>
        <ResponsiveContainer width="100%" height={height}>
          <ComposedChart data={rows} margin={{ top: 16, right: 22, bottom: 2, left: 6 }} accessibilityLayer={false}>
            <CartesianGrid stroke={ink('line')} vertical={false} />
            <XAxis {...along} tickFormatter={() => ''} height={8} />
            <YAxis
              {...CHART_AXIS}
              width={54}
              type="number"
              domain={[0, highest]}
              ticks={Array.from({ length: Math.floor(highest / rise) + 1 }, (_, i) => i * rise)}
              tickFormatter={(value: number) => percent(value)}
            >
              <Label
                value={t('chart.elongation')}
                angle={-90}
                position="insideLeft"
                fill={ink('faint')}
                fontSize={13.5}
                style={{ textAnchor: 'middle' }}
              />
            </YAxis>
            <Area dataKey="band" stroke="none" fill={ink('steel')} fillOpacity={0.18} isAnimationActive={false} />
            <Line dataKey="middle" stroke={ink('steel')} strokeWidth={2} dot={false} isAnimationActive={false} />
            <ReferenceLine y={limit} stroke={ink('madder')} strokeWidth={2} />
            <ReferenceLine x={now} stroke={ink('ink')} strokeDasharray="2 3">
              <Label value={t('forecast.now')} position="insideTopRight" fill={ink('faint')} fontSize={13} />
            </ReferenceLine>
            {withheld === null && forecast.kmLeft[1] > 0 && next > now && next < end && (
              <ReferenceLine x={next} stroke={ink('brass')} strokeWidth={2} strokeDasharray="6 3">
                <Label
                  value={t('forecast.nextLook')}
                  position="top"
                  fill={ink('brass')}
                  fontSize={13}
                  fontWeight={600}
                />
              </ReferenceLine>
            )}
            {straight !== null && last && (
              <ReferenceLine
                segment={[
                  { x: last.x, y: last.y },
                  { x: x(straight), y: limit },
                ]}
                stroke={ink('ink')}
                strokeWidth={2}
                strokeDasharray="7 4"
                ifOverflow="hidden"
              />
            )}
            {shown.includes('alone') && x(picture.distanceAlone) < end && (
              <ReferenceLine x={x(picture.distanceAlone)} stroke={ink('ink')} strokeWidth={2} strokeDasharray="2 5">
                <Label value={t('forecast.alone')} position="insideTopLeft" fill={ink('ink')} fontSize={13} />
              </ReferenceLine>
            )}
            <Scatter
              data={points}
              dataKey="y"
              isAnimationActive={false}
              shape={({ cx, cy, payload }) => {
                const { isPoint, y } = payload as (typeof points)[number]
                // A gauge's interval has no best value: its bar alone says what is known.
                return isPoint ? (
                  <circle cx={cx} cy={cy} r={5.5} fill={y > limit ? ink('madder') : ink('ink')} />
                ) : (
                  <g />
                )
              }}
            >
              <ErrorBar dataKey="reach" direction="y" width={5} strokeWidth={2} stroke={ink('faint')} />
            </Scatter>
          </ComposedChart>
        </ResponsiveContainer>
      </Box>
      <Chance
        along={along}
        chance={withheld === null ? chance.map(({ s, over }) => ({ x: x(s), over })) : null}
        now={now}
        unit={unit}
      />
      {overlays && withheld === null && <Overlays picture={picture} shown={shown} onShow={setShown} />}
    </Box>
  )
}

/** The distance axis both pictures share. */
function alongTo(end: number) {
  const step = STEPS.find((one) => end / one <= 8) ?? 10_000
  return {
    ...CHART_AXIS,
    type: 'number' as const,
    dataKey: 'x',
    domain: [0, end] as [number, number],
    ticks: Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step),
    tickFormatter: (value: number) => number(value, 0),
    allowDataOverflow: true,
  }
}

/** The chance of being over by each distance; null where no forecast is shown. */
function Chance({
  along,
  chance,
  now,
  unit,
}: {
  along: ReturnType<typeof alongTo>
  chance: { x: number; over: number }[] | null
  now: number
  unit: 'km' | 'mi'
}) {
  const { t } = useTranslation()
  return (
    <Box role="img" aria-label={t('forecast.chanceTitle')}>
      <ResponsiveContainer width="100%" height={chance ? 92 : 56}>
        <ComposedChart
          data={chance ?? []}
          margin={{ top: 4, right: 22, bottom: 18, left: 6 }}
          accessibilityLayer={false}
        >
          <XAxis {...along}>
            <Label
              value={t('forecast.axis', { unit })}
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
            domain={[0, 1]}
            ticks={chance ? [0, 0.5, 1] : []}
            tickFormatter={(value: number) => t('forecast.percent', { value: shareText(value) })}
          />
          <Area
            dataKey="over"
            stroke={ink('madder')}
            strokeWidth={1.5}
            fill={ink('madder')}
            fillOpacity={0.22}
            isAnimationActive={false}
          />
          <ReferenceLine x={now} stroke={ink('ink')} strokeDasharray="2 3" />
        </ComposedChart>
      </ResponsiveContainer>
    </Box>
  )
}

/** The two usual ways, drawn over when asked for, and how far each would have been off. */
function Overlays({
  picture,
  shown,
  onShow,
}: {
  picture: ForecastPicture
  shown: readonly Overlay[]
  onShow: (shown: Overlay[]) => void
}) {
  const { t } = useTranslation()
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap', mt: 0.5 }}>
      <ToggleButtonGroup
        value={shown}
        onChange={(_, chosen: Overlay[]) => onShow(chosen)}
        size="small"
        aria-label={t('forecast.overlays')}
      >
        <ToggleButton value="line">{t('forecast.straightLine')}</ToggleButton>
        <ToggleButton value="alone">{t('forecast.distanceAlone')}</ToggleButton>
      </ToggleButtonGroup>
      <PastErrors picture={picture} shown={shown} />
    </Stack>
  )
}

/** How far each way would have been off for this chain's own past. */
function PastErrors({ picture, shown }: { picture: ForecastPicture; shown: readonly Overlay[] }) {
  const { t } = useTranslation()
  const { past } = picture
  if (shown.length === 0) return null
  if (!past)
    return (
      <Typography variant="body2" color="textSecondary">
        {t('forecast.noPast')}
      </Typography>
    )
  const off = [
    t('forecast.offOurs', { off: percent(past.forecast) }),
    ...(shown.includes('line') && past.straightLine !== null
      ? [t('forecast.offLine', { off: percent(past.straightLine) })]
      : []),
    ...(shown.includes('alone') ? [t('forecast.offAlone', { off: percent(past.distanceAlone) })] : []),
  ]
  return (
    <Typography variant="body2">
      {t('forecast.past', { count: past.readings })} {off.join(', ')}.
    </Typography>
  )
}

function Legend({ limit, forecast }: { limit: number; forecast: boolean }) {
  const { t } = useTranslation()
  const swatch = { verticalAlign: 'middle', marginRight: 5 } as const
  return (
    <Stack direction="row" sx={{ gap: 2, fontSize: 'size.cap', color: 'text.secondary', flexWrap: 'wrap' }}>
      <span>
        <svg width="12" height="16" aria-hidden style={swatch}>
          <line x1="6" x2="6" y1="1" y2="15" stroke={ink('ink')} strokeWidth="1.5" />
          <circle cx="6" cy="8" r="4" fill={ink('ink')} />
        </svg>
        {t('chart.reading')}
      </span>
      {forecast && (
        <span>
          <svg width="20" height="16" aria-hidden style={swatch}>
            <rect x="0" y="2" width="20" height="12" fill={ink('steel')} opacity="0.18" />
            <line x1="0" x2="20" y1="11" y2="5" stroke={ink('steel')} strokeWidth="2" />
          </svg>
          {t('forecast.band')}
        </span>
      )}
      <span style={{ color: ink('madder') }}>
        <svg width="18" height="16" aria-hidden style={swatch}>
          <line x1="0" x2="18" y1="8" y2="8" stroke={ink('madder')} strokeWidth="2" />
        </svg>
        {t('chart.limit', { limit: percent(limit) })}
      </span>
    </Stack>
  )
}
