import { MM_PER_INCH, PITCH_MM, spanAtElongation } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { number } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'
import { ChainRun } from './ChainRun.tsx'

const WIDTH = 760
const HEIGHT = 260
const PAD = 22
/** A pin's diameter, mm. */
const PIN_MM = 3.6
/** The glass shows this much of the rule to either side at least, mm: room for the pin itself. */
const GLASS_MM = 8.5

/**
 * A steel rule with the chain on it, to scale: the whole run above, and below a glass over its end, where the pin
 * stands against the rule's own ticks, a new chain's length and the limit's.
 */
export function RunRule({
  lengthMm,
  pitches,
  unit,
  denominator,
  limit,
  colour,
  hungWith = null,
}: {
  lengthMm: number | null
  pitches: number | null
  unit: 'mm' | 'in'
  /** Steps per inch of the rule's ticks under the glass. */
  denominator: number
  /** %, where the limit lies. */
  limit: number
  colour: string
  /** A whole chain: the preload it hangs with, as it is said; null for a run on a rule. */
  hungWith?: string | null
}) {
  const { t } = useTranslation()
  const nominal = pitches === null ? null : pitches * PITCH_MM
  const limitMm = pitches === null ? null : spanAtElongation({ pitches, elongation: limit })
  const spoken =
    lengthMm === null || pitches === null || nominal === null || limitMm === null
      ? t('measure.drawingEmpty')
      : t('measure.drawing', {
          pitches,
          length: number(lengthMm, 1),
          nominal: number(nominal, 1),
          limit: number(limitMm, 1),
        })
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={spoken} style={{ display: 'block' }}>
      <Run lengthMm={lengthMm} pitches={pitches} unit={unit} colour={colour} hungWith={hungWith} />
      {lengthMm !== null && nominal !== null && limitMm !== null && (
        <Glass {...{ lengthMm, nominal, limitMm, unit, denominator, colour }} />
      )}
    </svg>
  )
}

/** The whole run on the rule. */
function Run({
  lengthMm,
  pitches,
  unit,
  colour,
  hungWith,
}: {
  lengthMm: number | null
  pitches: number | null
  unit: 'mm' | 'in'
  colour: string
  hungWith: string | null
}) {
  const shownMm = Math.max((lengthMm ?? 24 * PITCH_MM) * (hungWith === null ? 1.04 : 1.08), 60)
  const x = (mm: number): number => PAD + (mm / shownMm) * (WIDTH - 2 * PAD)
  const step = unit === 'in' ? MM_PER_INCH / (shownMm > 700 ? 1 : 4) : shownMm > 700 ? 10 : 5
  const labelled = unit === 'in' ? MM_PER_INCH * (shownMm > 700 ? 5 : 1) : shownMm > 700 ? 100 : 20
  const ticks = Array.from({ length: Math.floor(shownMm / step) + 1 }, (_, i) => i * step)
  const top = 46
  const realPitch = lengthMm !== null && pitches !== null ? lengthMm / pitches : null
  const radius = Math.min(11, realPitch === null ? 0 : (x(realPitch) - x(0)) * 0.36)
  return (
    <g>
      <path
        d={`M${PAD - 12} ${top}H${WIDTH - PAD + 12}V${top + 40}H${PAD - 12}Z`}
        fill={ink('blade')}
        stroke={ink('edge')}
      />
      {ticks.map((mm, i) => {
        const isLabelled = Math.abs(mm / labelled - Math.round(mm / labelled)) < 1e-6
        return (
          <g key={i}>
            <line x1={x(mm)} x2={x(mm)} y1={top} y2={top + (isLabelled ? 15 : 8)} stroke={ink('edge')} />
            {isLabelled && (
              <text x={x(mm)} y={top + 30} fontSize={13} fontWeight={600} textAnchor="middle" fill={ink('ink')}>
                {Math.round(unit === 'in' ? mm / MM_PER_INCH : mm)}
              </text>
            )}
          </g>
        )
      })}
      {realPitch !== null && pitches !== null && pitches <= 160 && (
        <g>
          <ChainRun
            pitches={pitches}
            at={(pin) => x(pin * realPitch)}
            y={25}
            radius={radius}
            marked={[0, pitches]}
            colour={colour}
          />
          {hungWith !== null && <Hung from={x(0)} to={x(lengthMm ?? 0)} preload={hungWith} />}
          <line x1={x(0)} x2={x(0)} y1={25} y2={top + 15} stroke={colour} strokeWidth={1.6} />
          <line
            x1={x(pitches * realPitch)}
            x2={x(pitches * realPitch)}
            y1={25}
            y2={top + 15}
            stroke={colour}
            strokeWidth={1.6}
          />
        </g>
      )}
    </g>
  )
}

/** A whole chain hangs from a peg, with a weight at its end; the drawing lies on its side. */
function Hung({ from, to, preload }: { from: number; to: number; preload: string }) {
  return (
    <g>
      <path d={`M${from - 12} 6v38`} stroke={ink('edge')} strokeWidth={4} />
      <circle cx={from} cy={25} r={6} fill="none" stroke={ink('edge')} strokeWidth={2.4} />
      <path d={`M${to} 25h9`} stroke={ink('edge')} strokeWidth={2} />
      <rect x={to + 9} y={12} width={38} height={26} rx={3} fill={ink('edge')} />
      <text x={to + 28} y={29.5} fontSize={12.5} fontWeight={700} textAnchor="middle" fill={ink('sheet')}>
        {preload}
      </text>
    </g>
  )
}

/** The end of the run, enlarged. */
function Glass({
  lengthMm,
  nominal,
  limitMm,
  unit,
  denominator,
  colour,
}: {
  lengthMm: number
  nominal: number
  limitMm: number
  unit: 'mm' | 'in'
  denominator: number
  colour: string
}) {
  const { t } = useTranslation()
  const from = Math.min(nominal, lengthMm) - GLASS_MM
  const to = Math.max(limitMm, lengthMm, nominal) + GLASS_MM
  const left = PAD - 12
  const right = WIDTH - PAD + 12
  const scale = (right - left) / (to - from)
  const x = (mm: number): number => left + (mm - from) * scale
  const step = unit === 'in' ? MM_PER_INCH / denominator : 0.5
  const first = Math.ceil(from / step)
  const ticks = Array.from({ length: Math.floor(to / step) - first + 1 }, (_, i) => first + i)
  const major = unit === 'in' ? denominator / 8 : 2
  // Long rules have long numbers: only so many are written that each has room.
  const room = 8 + 8.5 * String(Math.round(to)).length
  const labelled = unit === 'in' ? major : 2 * Math.ceil(room / (2 * step * scale))
  const edge = 205
  // The two names stand apart even where their lines nearly meet.
  const labelShift = Math.max(0, (44 - (x(limitMm) - x(nominal))) / 2)
  const inchLabel = (index: number): string => {
    const whole = Math.floor(index / denominator)
    const rest = index - whole * denominator
    if (rest === 0) return `${whole}`
    const eighths = (rest * 8) / denominator
    const fraction = eighths % 4 === 0 ? '1/2' : eighths % 2 === 0 ? `${eighths / 2}/4` : `${eighths}/8`
    return `${whole} ${fraction}`
  }
  return (
    <g>
      <rect x={left} y={106} width={right - left} height={HEIGHT - 108} fill={ink('sheet')} stroke={ink('line')} />
      <path d={`M${left} ${edge}H${right}V${HEIGHT - 2}H${left}Z`} fill={ink('blade')} stroke={ink('edge')} />
      {ticks.map((index) => {
        const isMajor = index % major === 0
        return (
          <g key={index}>
            <line
              x1={x(index * step)}
              x2={x(index * step)}
              y1={edge}
              y2={edge + (isMajor ? 26 : 15)}
              stroke={ink('edge')}
              strokeWidth={isMajor ? 1.5 : 1}
            />
            {index % labelled === 0 && x(index * step) > left + 26 && x(index * step) < right - 26 && (
              <text
                x={x(index * step)}
                y={edge + 44}
                fontSize={14}
                fontWeight={600}
                textAnchor="middle"
                fill={ink('ink')}
              >
                {unit === 'in' ? inchLabel(index) : Math.round(index * step)}
              </text>
            )}
          </g>
        )
      })}
      <clipPath id="glass">
        <rect x={left} y={106} width={right - left} height={HEIGHT - 108} />
      </clipPath>
      {/* The pin as large as it is: its centre on the rule's edge, where the reading is taken. */}
      <g clipPath="url(#glass)">
        <circle cx={x(lengthMm)} cy={edge} r={(PIN_MM / 2) * scale} fill={colour} opacity={0.13} />
        <circle cx={x(lengthMm)} cy={edge} r={(PIN_MM / 2) * scale} fill="none" stroke={colour} strokeWidth={1.5} />
      </g>
      <Marker at={x(nominal)} label={t('measure.drawNew')} shift={-labelShift} edge={edge} colour={ink('steel')} />
      <Marker at={x(limitMm)} label={t('measure.drawLimit')} shift={labelShift} edge={edge} colour={ink('madder')} />
      <line x1={x(lengthMm)} x2={x(lengthMm)} y1={edge - 30} y2={edge + 30} stroke={colour} strokeWidth={3} />
      <circle cx={x(lengthMm)} cy={edge} r={4.5} fill={colour} />
      <text x={right - 8} y={122} fontSize={13} textAnchor="end" fill={ink('faint')}>
        {t('measure.times', { factor: number(scale / 3.78, 0) })}
      </text>
    </g>
  )
}

function Marker({
  at,
  label,
  shift,
  edge,
  colour,
}: {
  at: number
  label: string
  shift: number
  edge: number
  colour: string
}) {
  return (
    <g>
      <line x1={at} x2={at} y1={127} y2={edge + 26} stroke={colour} strokeWidth={1.6} strokeDasharray="4 3" />
      <text x={at + shift} y={122} fontSize={14} fontWeight={600} textAnchor="middle" fill={colour}>
        {label}
      </text>
    </g>
  )
}
