import { useTranslation } from 'react-i18next'
import { kindAt, type PitchKind, type Run } from '@pelrin/core'
import { ink } from '../theme/theme.ts'

/** Pitches in a row, and how large one is drawn. */
const IN_ROW = 28
const WIDE = 26
const TALL = 40

/** A chain rolled out from the place it broke, row by row: what is damaged, what comes out, what was looked over. */
export function BrokenChainDrawing({
  pitches,
  broken,
  damaged,
  runs,
  cursor,
  section,
  onPitch,
}: {
  pitches: number
  broken: PitchKind
  damaged: readonly number[]
  /** What comes out, once a way of mending is chosen. */
  runs: readonly Run[]
  cursor: number | null
  /** What is looked over now. */
  section: { readonly from: number; readonly to: number } | null
  onPitch: (pitch: number) => void
}) {
  const { t } = useTranslation()
  const rows = Math.ceil(pitches / IN_ROW)
  const out = new Set(runs.flatMap(({ from, length }) => Array.from({ length }, (_, i) => (from + i) % pitches)))
  return (
    <svg
      viewBox={`-4 0 ${IN_ROW * WIDE + 8} ${rows * TALL}`}
      width="100%"
      role="img"
      aria-label={t('mends.chainDrawn', { count: pitches, damaged: damaged.length })}
      style={{ display: 'block', touchAction: 'manipulation', flexShrink: 0 }}
    >
      {Array.from({ length: pitches }, (_, pitch) => {
        const x = (pitch % IN_ROW) * WIDE
        const y = Math.floor(pitch / IN_ROW) * TALL + TALL / 2
        const half = kindAt({ broken }, pitch) === 'outer' ? 9 : 6.5
        const bad = damaged.includes(pitch)
        const gone = out.has(pitch)
        const seen = section === null || pitch < section.from
        const now = section !== null && pitch >= section.from && pitch <= section.to
        return (
          <g key={pitch} onClick={() => onPitch(pitch)} style={{ cursor: 'pointer' }}>
            <rect x={x} y={y - TALL / 2} width={WIDE} height={TALL} fill="transparent" />
            <rect
              x={x + 1}
              width={WIDE - 2}
              y={y - half}
              height={2 * half}
              rx={half}
              fill={bad ? ink('madder') : now ? ink('paper') : ink('blade')}
              stroke={ink(bad ? 'madder' : 'edge')}
              strokeWidth={kindAt({ broken }, pitch) === 'outer' ? 2 : 1.1}
              opacity={gone && !bad ? 0.35 : seen || now ? 1 : 0.55}
            />
            <circle cx={x} cy={y} r={2.6} fill={ink('paper')} stroke={ink('edge')} />
            {bad && (
              <path
                d={`M${x + WIDE / 2 - 4} ${y - 4}l8 8m0 -8l-8 8`}
                stroke={ink('paper')}
                strokeWidth={2}
                fill="none"
              />
            )}
            {gone && <path d={`M${x + 2} ${y + 15}H${x + WIDE - 2}`} stroke={ink('madder')} strokeWidth={3} />}
            {cursor === pitch && <path d={`M${x + WIDE / 2 - 6} ${y - 19}h12l-6 7Z`} fill={ink('steel')} />}
          </g>
        )
      })}
    </svg>
  )
}
