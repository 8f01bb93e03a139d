import { Box, Button, Stack, Typography } from '@mui/material'
import { useEffect, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { isAlarm, type Assumptions, type PotRecipe } from '@pelrin/core'
import type { PotNow, PotTemperature } from '@pelrin/contract'
import { clock, number, temperature } from '../../messages/format.ts'
import { ring } from '../../pieces/ring.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ink } from '../../theme/theme.ts'
import type { Heat } from './useHeat.ts'

const WIDTH = 300
const HEIGHT = 84
const HOUR = 3_600_000
/** Between two rings of an alarm, ms. */
const AGAIN_MS = 20_000
const LOWEST = 40

/** A pot: whether it is on, what its thermometer says and whether that can be believed, and how far its bath is. */
export function PotHeat({
  pot,
  recipe,
  heat,
  now,
  times,
  busy,
  onSwitch,
  onBath,
  onChange,
}: {
  pot: PotNow
  /** By which the band is judged. */
  recipe: PotRecipe
  heat: Heat
  now: number
  times: Assumptions['pot']
  busy: boolean
  onSwitch: (on: boolean) => void
  onBath: () => void
  onChange: () => void
}) {
  const { t } = useTranslation()
  const { bath } = pot
  return (
    <Box component="section" aria-label={pot.name} sx={{ borderTop: 1, borderColor: 'divider', pt: 1 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1 }}>
          <Typography sx={{ fontWeight: 700, fontSize: 'size.lead', lineHeight: 1.2 }}>{pot.name}</Typography>
          <Typography variant="body2" color="textSecondary">
            {pot.onSince === null ? t('pot.cold') : t('pot.onSince', { time: clock(pot.onSince) })},{' '}
            {t('pot.holds', { count: pot.capacity })}, {t(`pot.vesselOf.${pot.vessel}`)}
          </Typography>
        </Box>
        <Allowed right="work">
          <Button onClick={onChange} sx={{ px: 1 }}>
            {t('pot.change')}
          </Button>
          <Button variant="outlined" disabled={busy} onClick={() => onSwitch(pot.onSince === null)}>
            {t(pot.onSince === null ? 'pot.on' : 'pot.off')}
          </Button>
        </Allowed>
      </Stack>
      {pot.thermometer ? (
        <Temperature heat={heat} pot={pot} now={now} recipe={recipe} times={times} />
      ) : (
        <Typography variant="body2" color="textSecondary">
          {t('pot.temperature.none')}
        </Typography>
      )}
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography variant="body2" sx={{ flex: 1, ...(bath.change ? { color: ink('brass'), fontWeight: 700 } : {}) }}>
          {t(bath.change ? 'pot.bathChange' : 'pot.bath', { load: number(bath.load, 0), most: number(bath.most, 0) })}
        </Typography>
        <Allowed right="work">
          <Button disabled={busy} onClick={onBath} sx={{ px: 1 }}>
            {t('pot.bathChanged')}
          </Button>
        </Allowed>
      </Stack>
    </Box>
  )
}

function Temperature({
  heat: { word, celsius, readings, clock: clockThere },
  pot,
  now,
  recipe,
  times,
}: {
  heat: Heat
  pot: PotNow
  now: number
  recipe: PotRecipe
  times: Assumptions['pot']
}) {
  const { t } = useTranslation()
  const on = pot.onSince !== null
  // One that is off may say nothing, or be at any temperature but one.
  const bad = isAlarm(word) && (on || word === 'alarm')
  const rang = useRef(0)
  useEffect(() => {
    if (!bad || now - rang.current < AGAIN_MS) return
    rang.current = now
    ring()
  }, [bad, now])
  if (!on && !bad)
    return celsius === null ? null : (
      <Typography variant="body2" color="textSecondary">
        {t('pot.temperature.off', { warm: temperature(celsius) })}
      </Typography>
    )
  const colour = bad ? ink('madder') : word === 'cool' || word === 'hot' ? ink('brass') : ink('steel')
  return (
    <Box>
      <Stack direction="row" role={bad ? 'alert' : 'status'} sx={{ alignItems: 'baseline', gap: 1 }}>
        <Typography sx={{ fontSize: 'size.big', fontWeight: 700, color: colour, lineHeight: 1.1 }}>
          {celsius === null ? '–' : temperature(celsius)}
        </Typography>
        <Typography sx={{ fontWeight: 700, color: colour }}>
          {t(`pot.temperature.${word}`, { recipe: t(`pot.recipe.${recipe}`) })}
        </Typography>
      </Stack>
      <TemperatureTrace
        readings={readings}
        now={clockThere}
        band={{ low: times[recipe].lowCelsius, high: times[recipe].highCelsius }}
        alarm={pot.alarmCelsius}
      />
    </Box>
  )
}

/** The last hour: what was sent, the recipe's band, the alarm. Gaps stay gaps. */
function TemperatureTrace({
  readings,
  now,
  band,
  alarm,
}: {
  readings: PotTemperature['readings']
  now: number
  band: { low: number; high: number }
  alarm: number
}) {
  const { t } = useTranslation()
  const top = alarm + 15
  const x = (at: number): number => WIDTH - ((now - at) / HOUR) * (WIDTH - 34)
  const y = (celsius: number): number =>
    HEIGHT - ((Math.min(top, Math.max(LOWEST, celsius)) - LOWEST) / (top - LOWEST)) * HEIGHT
  const path = readings
    .map(({ at, celsius }, i) => `${i > 0 && at - readings[i - 1]!.at < 60_000 ? 'L' : 'M'}${x(at)} ${y(celsius)}`)
    .join(' ')
  return (
    <svg
      viewBox={`0 -6 ${WIDTH + 4} ${HEIGHT + 14}`}
      width="100%"
      role="img"
      aria-label={t('pot.temperature.chart')}
      style={{ display: 'block' }}
    >
      <rect
        x={34}
        y={y(band.high)}
        width={WIDTH - 34}
        height={y(band.low) - y(band.high)}
        fill={ink('steel')}
        opacity={0.16}
      />
      <line x1={34} x2={WIDTH} y1={y(alarm)} y2={y(alarm)} stroke={ink('madder')} strokeWidth={1.5} />
      {[band.low, ...(alarm - band.high > 12 ? [band.high] : []), alarm].map((value) => (
        <text key={value} x={30} y={y(value) + 4} textAnchor="end" fontSize={12} fill={ink('faint')}>
          {number(value, 0)}
        </text>
      ))}
      <path d={path} fill="none" stroke={ink('ink')} strokeWidth={1.8} />
    </svg>
  )
}
