import { useTranslation } from 'react-i18next'
import type { SpotMark } from '@pelrin/contract'
import { percent } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'

export type WearRuleSize = 'large' | 'medium' | 'small'

/** The scale every wear rule has: one glance is learned once. %. */
const LOWEST = 0
const HIGHEST = 1.25
const STEP = 0.05
const LABELLED = 0.25

interface Measures {
  width: number
  height: number
  /** Where the blade's edge lies, and how deep the blade is. */
  edge: number
  depth: number
  pad: number
  minor: number
  major: number
  font: number
  lanes: number
}

const SIZES: Record<WearRuleSize, Measures> = {
  large: { width: 640, height: 124, edge: 52, depth: 66, pad: 18, minor: 13, major: 26, font: 15, lanes: 4 },
  medium: { width: 420, height: 84, edge: 36, depth: 44, pad: 14, minor: 9, major: 17, font: 13, lanes: 3 },
  small: { width: 88, height: 30, edge: 14, depth: 15, pad: 3, minor: 4, major: 7, font: 0, lanes: 1 },
}

/** Where an elongation lies across a rule of a size. */
const scaleOf =
  ({ pad, width }: Measures) =>
  (value: number): number =>
    pad + ((Math.min(Math.max(value, LOWEST), HIGHEST) - LOWEST) / (HIGHEST - LOWEST)) * (width - 2 * pad)

/** The same scale, for whatever is drawn beneath a rule of that size. */
export const WEAR_SCALE = { medium: scaleOf(SIZES.medium), large: scaleOf(SIZES.large) }

const low = (mark: SpotMark): number => (mark.value === null ? (mark.over ?? LOWEST) : mark.value - mark.u)
const high = (mark: SpotMark): number => (mark.value === null ? (mark.under ?? HIGHEST) : mark.value + mark.u)

/** Marks in rows, so that none hides another: each in the lowest row where it has room. */
function inLanes(marks: readonly SpotMark[], lanes: number): { mark: SpotMark; lane: number }[] {
  const ends: number[] = []
  return [...marks]
    .sort((a, b) => Number(b.worst) - Number(a.worst) || low(a) - low(b))
    .reverse()
    .map((mark) => {
      let lane = ends.findIndex((end) => end < low(mark) - 0.01)
      if (lane < 0) lane = Math.min(ends.length, lanes - 1)
      ends[lane] = Math.max(ends[lane] ?? -Infinity, high(mark))
      return { mark, lane }
    })
}

/**
 * The wear rule: elongation on the same steel scale wherever it is shown, spots as marks with their uncertainty,
 * the limit as a notch cut into the edge.
 */
export function WearRule({
  size,
  marks,
  limit,
  watch,
  colour,
}: {
  size: WearRuleSize
  marks: readonly SpotMark[]
  limit: number
  /** Where to look more often, %; drawn on larger rules only. */
  watch?: number
  /** Colour of the worst mark: the verdict's. */
  colour: string
}) {
  const { t } = useTranslation()
  const { width, height, edge, depth, pad, minor, major, font, lanes } = SIZES[size]
  const x = scaleOf(SIZES[size])
  const small = size === 'small'
  const notch = small ? 3.5 : size === 'medium' ? 7 : 10
  const ticks = Array.from({ length: Math.round((HIGHEST - LOWEST) / STEP) + 1 }, (_, i) => LOWEST + i * STEP)
  const isLabelled = (tick: number): boolean => Math.abs(tick / LABELLED - Math.round(tick / LABELLED)) < 1e-9
  const shownTicks = small ? ticks.filter(isLabelled) : ticks
  const laneHeight = small ? 0 : (edge - 14) / lanes
  const spoken = marks
    .map((mark) =>
      mark.value === null ? `${mark.over ?? ''}–${mark.under ?? ''} %` : t('rule.spot', { value: percent(mark.value) }),
    )
    .join(', ')
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={small ? width : '100%'}
      {...(small ? { height } : {})}
      role="img"
      aria-label={
        marks.length === 0
          ? t('rule.empty', { limit: percent(limit) })
          : t('rule.label', { spots: spoken, limit: percent(limit) })
      }
      style={{ display: 'block', overflow: 'visible' }}
    >
      <path
        d={`M1 ${edge}H${x(limit) - notch}L${x(limit)} ${edge + notch * 1.3}L${x(limit) + notch} ${edge}H${width - 1}V${edge + depth}H1Z`}
        fill={ink('blade')}
        stroke={ink('edge')}
        strokeWidth={small ? 1 : 1.4}
        strokeLinejoin="round"
      />
      {!small && (
        <path
          d={`M${x(limit)} ${edge + depth - 5}H${width - 2}V${edge + depth - 1}H${x(limit)}Z`}
          fill={ink('madder')}
          opacity={0.55}
        />
      )}
      {!small && watch !== undefined && watch < limit && (
        <path
          d={`M${x(watch)} ${edge + depth - 5}H${x(limit)}V${edge + depth - 1}H${x(watch)}Z`}
          fill={ink('brass')}
          opacity={0.55}
        />
      )}
      {shownTicks.map((tick) => {
        const labelled = isLabelled(tick)
        // The notch is cut where a tick may be: the tick then begins at its foot.
        const top = Math.abs(tick - limit) < STEP / 2 ? edge + notch * 1.3 : edge
        return (
          <line
            key={tick}
            x1={x(tick)}
            x2={x(tick)}
            y1={top}
            y2={edge + (labelled ? major : minor)}
            stroke={ink('edge')}
            strokeWidth={labelled && !small ? 1.5 : 1}
          />
        )
      })}
      {font > 0 &&
        ticks.filter(isLabelled).map((tick) => (
          <text
            key={tick}
            x={x(tick)}
            y={edge + major + font * 0.95}
            fontSize={font}
            fontWeight={600}
            textAnchor={tick === LOWEST ? 'start' : tick === HIGHEST ? 'end' : 'middle'}
            dx={tick === LOWEST ? -pad / 3 : tick === HIGHEST ? pad / 3 : 0}
            fill={ink('ink')}
          >
            {percent(tick)}
          </text>
        ))}
      {small
        ? smallMark(marks, x, edge, colour)
        : inLanes(marks, lanes).map(({ mark, lane }, i) => {
            const y = edge - 10 - lane * laneHeight
            const fill = mark.worst ? colour : ink('ink')
            const size0 = mark.worst ? 5.5 : 4
            const { value } = mark
            return (
              <g key={i}>
                <rect
                  x={x(low(mark))}
                  width={Math.max(2, x(high(mark)) - x(low(mark)))}
                  y={y - (mark.worst ? 3 : 2.5)}
                  height={mark.worst ? 6 : 5}
                  rx={2.5}
                  fill={fill}
                  opacity={value === null ? 0.45 : 0.26}
                />
                {value !== null && (
                  <>
                    <line
                      x1={x(value)}
                      x2={x(value)}
                      y1={y}
                      y2={edge + (mark.worst ? major * 0.72 : 0)}
                      stroke={fill}
                      strokeWidth={mark.worst ? 2.6 : 1.4}
                    />
                    <circle cx={x(value)} cy={y} r={size0} fill={fill} />
                    {value > HIGHEST && <path d={`M${x(HIGHEST) + 7} ${y - 5}l7 5-7 5Z`} fill={fill} />}
                  </>
                )}
                {value === null && mark.over !== null && (
                  <line x1={x(mark.over)} x2={x(mark.over)} y1={y - 6} y2={edge} stroke={fill} strokeWidth={1.6} />
                )}
                {value === null && mark.under !== null && (
                  <line x1={x(mark.under)} x2={x(mark.under)} y1={y - 6} y2={edge} stroke={fill} strokeWidth={1.6} />
                )}
              </g>
            )
          })}
    </svg>
  )
}

/** On a small rule only the worst mark shows, as a pointer on the edge. */
function smallMark(marks: readonly SpotMark[], x: (value: number) => number, edge: number, colour: string) {
  const worst = marks.find((mark) => mark.worst) ?? marks[0]
  if (!worst) return null
  if (worst.value === null)
    return (
      <rect
        x={x(low(worst))}
        width={Math.max(3, x(high(worst)) - x(low(worst)))}
        y={edge - 6}
        height={4.5}
        rx={2}
        fill={colour}
        opacity={0.75}
      />
    )
  const at = x(worst.value)
  return <path d={`M${at - 5} ${edge - 10}h10L${at} ${edge - 0.5}Z`} fill={colour} />
}
