import { ink } from '../theme/theme.ts'

/** A straight piece of chain from its side: plates in turn, a pin at every pitch. */
export function ChainRun({
  pitches,
  at,
  y,
  radius,
  rollers = 0,
  marked,
  colour,
}: {
  pitches: number
  /** Where a pin lies, by its number from 0. */
  at: (pin: number) => number
  y: number
  /** Half the height of an outer plate. */
  radius: number
  /** Radius of the rollers, drawn where it is above 0. */
  rollers?: number
  /** Pins drawn in colour: those measured between. */
  marked: readonly number[]
  colour: string
}) {
  return (
    <g>
      {rollers > 0 &&
        Array.from({ length: pitches + 1 }, (_, i) => (
          <circle key={i} cx={at(i)} cy={y} r={rollers} fill={ink('blade')} stroke={ink('edge')} />
        ))}
      {Array.from({ length: pitches }, (_, i) => {
        const outer = i % 2 === 1
        const half = radius * (outer ? 1 : 0.84)
        return (
          <rect
            key={i}
            x={at(i) - half}
            width={at(i + 1) - at(i) + 2 * half}
            y={y - half}
            height={2 * half}
            rx={half}
            fill={outer ? ink('sheet') : ink('paper')}
            fillOpacity={rollers > 0 ? 0.72 : 1}
            stroke={ink('edge')}
            strokeWidth={pitches > 60 ? 0.6 : 1}
          />
        )
      })}
      {Array.from({ length: pitches + 1 }, (_, i) => (
        <circle
          key={i}
          cx={at(i)}
          cy={y}
          r={Math.max(1.4, radius * 0.42)}
          fill={marked.includes(i) ? colour : ink('edge')}
        />
      ))}
    </g>
  )
}
