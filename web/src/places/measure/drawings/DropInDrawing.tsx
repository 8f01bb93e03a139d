import { parseMarks, type MarkState } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { percent } from '../../../messages/format.ts'
import { ink } from '../../../theme/theme.ts'
import { HEIGHT, PAD, PLATE_MM, ROLLER_MM, WIDTH } from './frame.ts'

const PITCH = 12.7
/** How deep a tooth stands in each state, of its whole depth. */
const DEPTH: Record<MarkState, number> = { out: 0, push: 0.62, in: 1 }

/**
 * A drop-in gauge, a glass over the tooth of each of its marks: seated between two rollers, pressed part of the way,
 * or standing on the roller.
 */
export function DropInDrawing({
  typed,
  marks,
  held = false,
  colour,
}: {
  typed: string
  marks: readonly number[]
  /** A third contact holds the roller beside the tooth to one side, so that rollers do not enter. */
  held?: boolean
  colour: string
}) {
  const { t } = useTranslation()
  const read = parseMarks(typed, marks)
  const states = marks.map((_, i): MarkState | null => (read.ok ? (read.seen[i]?.state ?? null) : null))
  const width = (WIDTH - 2 * PAD - 16 * (marks.length - 1)) / marks.length
  const spoken = read.ok
    ? read.seen.map(({ mark, state }) => `${percent(mark)}: ${t(`measure.mark.${state}`)}`).join(', ')
    : t('measure.gaugeEmpty')
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={spoken} style={{ display: 'block' }}>
      {marks.map((mark, i) => (
        <Glass
          key={mark}
          x={PAD + i * (width + 16)}
          width={width}
          mark={mark}
          state={states[i] ?? null}
          held={held}
          colour={colour}
        />
      ))}
    </svg>
  )
}

function Glass({
  x,
  width,
  mark,
  state,
  held,
  colour,
}: {
  x: number
  width: number
  mark: number
  state: MarkState | null
  held: boolean
  colour: string
}) {
  const { t } = useTranslation()
  const scale = Math.min(9.5, width / 36)
  const y = 168
  const middle = x + width * 0.56
  const roller = (ROLLER_MM / 2) * scale
  const gap = (PITCH - ROLLER_MM) * scale
  const toothHeight = 5.6 * scale
  const top = y - roller
  const depth = state === null ? -0.35 : DEPTH[state]
  // Out: it stands on the roller beside the gap. In: its shoulder lies on the plates.
  const toothAt = middle + (state === 'out' ? (PITCH * scale) / 2 - roller * 0.62 : 0)
  const beside = toothAt + gap * 0.2 - (middle + (PITCH * scale) / 2)
  const toothFoot = state === 'out' ? y - Math.sqrt(Math.max(0, roller ** 2 - beside ** 2)) : top + depth * toothHeight
  const body = toothFoot - toothHeight
  const clip = `gauge-${mark}`
  const shade = state === 'in' ? colour : state === 'push' ? ink('brass') : ink('edge')
  return (
    <g>
      <clipPath id={clip}>
        <rect x={x} y={2} width={width} height={HEIGHT - 4} />
      </clipPath>
      <rect x={x} y={2} width={width} height={HEIGHT - 4} fill={ink('sheet')} stroke={ink('line')} />
      <g clipPath={`url(#${clip})`}>
        {[-2, -1, 0, 1, 2].map((i) => (
          <circle
            key={i}
            cx={middle + (i - 0.5) * PITCH * scale}
            cy={y}
            r={roller}
            fill={ink('blade')}
            stroke={ink('edge')}
            strokeWidth={1.4}
          />
        ))}
        <path
          d={`M${x - 10} ${body - 3.2 * scale}H${toothAt + gap * 0.72}Q${toothAt + gap * 0.9} ${body - 3.2 * scale} ${toothAt + gap * 0.9} ${body - 1.4 * scale}V${body}H${toothAt + gap * 0.36}L${toothAt + gap * 0.2} ${toothFoot}H${toothAt - gap * 0.2}L${toothAt - gap * 0.36} ${body}H${x - 10}Z`}
          fill={ink('paper')}
          stroke={shade}
          strokeWidth={2.2}
          strokeLinejoin="round"
        />
        {held && (
          <path
            d={`M${middle - 1.5 * PITCH * scale + roller + 2} ${y - roller * 1.5}V${y + roller * 0.5}h${gap * 0.3}V${y - roller * 1.5}Z`}
            fill={ink('steel')}
          />
        )}
        {state === 'push' && (
          <path
            d={`M${toothAt} ${body - 8.6 * scale}v${3.2 * scale}m-7 -8l7 9 7 -9`}
            fill="none"
            stroke={ink('brass')}
            strokeWidth={3}
          />
        )}
        {[-1, 1].map((side) => (
          <rect
            key={side}
            x={
              middle +
              (side === -1
                ? -1.5 * PITCH * scale - (PLATE_MM / 2) * scale
                : 0.5 * PITCH * scale - (PLATE_MM / 2) * scale)
            }
            y={y - (PLATE_MM / 2) * scale}
            width={PITCH * scale + PLATE_MM * scale}
            height={PLATE_MM * scale}
            rx={(PLATE_MM / 2) * scale}
            fill={ink('sheet')}
            fillOpacity={0.45}
            stroke={ink('edge')}
            strokeWidth={1.2}
          />
        ))}
        {[-2, -1, 0, 1, 2].map((i) => (
          <circle key={i} cx={middle + (i - 0.5) * PITCH * scale} cy={y} r={1.8 * scale} fill={ink('edge')} />
        ))}
      </g>
      <text x={x + 12} y={30} fontSize={20} fontWeight={700} fill={ink('ink')}>
        {percent(mark)}
      </text>
      <text x={x + width - 12} y={30} fontSize={17} fontWeight={600} textAnchor="end" fill={shade}>
        {state === null ? '' : t(`measure.mark.${state}`)}
      </text>
    </g>
  )
}
