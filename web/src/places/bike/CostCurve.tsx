import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import {
  CartesianGrid,
  ComposedChart,
  Label,
  Line,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import type { CostOfWaiting } from '@pelrin/core'
import { moneyOf, moneyRound, percent } from '../../messages/format.ts'
import { CHART_AXIS } from '../../pieces/chartAxis.ts'
import { ink } from '../../theme/theme.ts'

/** What 1000 km cost, by how worn the chain is changed; the cheapest, the limit, and where it is by now. */
export function CostCurve({
  waiting,
  bySpeeds,
  worn,
}: {
  waiting: CostOfWaiting
  /** The limit by the number of speeds, %. */
  bySpeeds: number
  /** How worn it is, %; null where nothing was read. */
  worn: number | null
}) {
  const { t } = useTranslation()
  return (
    <Box
      role="img"
      aria-label={t('waiting.picture', {
        at: percent(waiting.cheapest.elongation),
        cost: moneyOf(waiting.cheapest.costPer1000),
      })}
    >
      <ResponsiveContainer width="100%" height={190}>
        <ComposedChart
          data={[...waiting.curve]}
          margin={{ top: 8, right: 12, bottom: 18, left: 0 }}
          accessibilityLayer={false}
        >
          <CartesianGrid stroke={ink('line')} vertical={false} />
          <XAxis
            {...CHART_AXIS}
            type="number"
            dataKey="elongation"
            domain={[0, 'dataMax']}
            tickCount={6}
            tickFormatter={(value: number) => percent(value)}
          >
            <Label value={t('waiting.at')} position="insideBottom" offset={-12} fill={ink('faint')} fontSize={13.5} />
          </XAxis>
          <YAxis
            {...CHART_AXIS}
            width={58}
            type="number"
            domain={[0, Math.ceil(waiting.cheapest.costPer1000 * 3)]}
            allowDataOverflow
            tickCount={4}
            tickFormatter={(value: number) => moneyRound(value)}
          >
            <Label
              value={t('waiting.per1000')}
              angle={-90}
              position="insideLeft"
              fill={ink('faint')}
              fontSize={13.5}
              style={{ textAnchor: 'middle' }}
            />
          </YAxis>
          <Line dataKey="costPer1000" stroke={ink('steel')} strokeWidth={2} dot={false} isAnimationActive={false} />
          <ReferenceLine x={bySpeeds} stroke={ink('madder')} strokeWidth={2} />
          {worn !== null && (
            <ReferenceLine x={worn} stroke={ink('ink')} strokeDasharray="2 3">
              <Label value={t('forecast.now')} position="insideTopRight" fill={ink('faint')} fontSize={13} />
            </ReferenceLine>
          )}
          <ReferenceDot
            x={waiting.cheapest.elongation}
            y={waiting.cheapest.costPer1000}
            r={6}
            fill={ink('brass')}
            stroke={ink('paper')}
          />
        </ComposedChart>
      </ResponsiveContainer>
    </Box>
  )
}
