import { DEFAULTS, PITCH_MM, type CaliperMode } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { number } from '../../../messages/format.ts'
import { ChainRun } from '../../../pieces/ChainRun.tsx'
import { ink } from '../../../theme/theme.ts'
import { HEIGHT, PAD, PLATE_MM, WIDTH } from './frame.ts'

/** A caliper on the chain: its jaws where the mode puts them, to scale with rollers and pins. */
export function CaliperDrawing({
  lengthMm,
  pitches,
  mode,
  rollerMm,
  colour,
}: {
  /** Between pin centres, mm. */
  lengthMm: number | null
  pitches: number | null
  mode: CaliperMode
  rollerMm: number | null
  colour: string
}) {
  const { t } = useTranslation()
  const roller = rollerMm ?? DEFAULTS.measuring.rollerMm
  const count = pitches ?? 8
  const shown = lengthMm ?? count * PITCH_MM
  const pitch = shown / count
  const left = PAD + 60
  const scale = (WIDTH - 2 * left) / (shown + 2 * PITCH_MM)
  const x = (mm: number): number => left + (mm + PITCH_MM) * scale
  const y = 178
  const half = mode === 'pin-to-pin' ? 0 : roller / 2
  const side = mode === 'inside-rollers' ? 1 : -1
  const jawLeft = x(side * half)
  const jawRight = x(shown - side * half)
  // Pointed jaws meet pins; the flat ones stand inside or outside of the rollers.
  const thick = 15
  const outward = mode === 'inside-rollers' ? -1 : 1
  const jaw = (at: number, inward: 1 | -1): string =>
    mode === 'pin-to-pin'
      ? `M${at - inward * 16} 62H${at + inward * 4}L${at} ${y}L${at - inward * 5} ${y - 22}L${at - inward * 16} 110Z`
      : `M${at} 62H${at + inward * outward * thick}V${y - 16}L${at + inward * outward * 5} ${y + 14}H${at}Z`
  const reading = mode === 'pin-to-pin' ? shown : mode === 'inside-rollers' ? shown - roller : shown + roller
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={
        lengthMm === null
          ? t('measure.caliperEmpty')
          : t('measure.caliperDrawing', { jaws: number(reading, 2), pins: number(shown, 2), pitches: count })
      }
      style={{ display: 'block' }}
    >
      <path d={`M${PAD} 34H${WIDTH - PAD}V62H${PAD}Z`} fill={ink('blade')} stroke={ink('edge')} strokeWidth={1.4} />
      {Array.from({ length: Math.floor((WIDTH - 2 * PAD) / (scale * 2)) }, (_, i) => (
        <line
          key={i}
          x1={PAD + 8 + i * scale * 2}
          x2={PAD + 8 + i * scale * 2}
          y1={62}
          y2={i % 5 === 0 ? 50 : 56}
          stroke={ink('edge')}
        />
      ))}
      <ChainRun
        pitches={count + 2}
        at={(pin) => x((pin - 1) * pitch)}
        y={y}
        radius={(PLATE_MM / 2) * scale}
        rollers={(roller / 2) * scale}
        marked={[1, count + 1]}
        colour={colour}
      />
      <path d={jaw(jawLeft, -1)} fill={ink('blade')} stroke={ink('edge')} strokeWidth={1.6} strokeLinejoin="round" />
      <path d={jaw(jawRight, 1)} fill={ink('blade')} stroke={ink('edge')} strokeWidth={1.6} strokeLinejoin="round" />
      <rect
        x={Math.min(jawRight - 20, WIDTH - PAD - 78)}
        y={24}
        width={78}
        height={46}
        rx={4}
        fill={ink('sheet')}
        stroke={ink('edge')}
      />
      {lengthMm !== null && (
        <>
          <text
            x={Math.min(jawRight - 20, WIDTH - PAD - 78) + 39}
            y={53}
            fontSize={17}
            fontWeight={700}
            textAnchor="middle"
            fill={ink('ink')}
          >
            {number(reading, 2)}
          </text>
          <Span from={jawLeft} to={jawRight} y={112} colour={ink('ink')} label={`${number(reading, 2)} mm`} />
          <Span
            from={x(0)}
            to={x(shown)}
            y={238}
            colour={colour}
            label={t('measure.pinToPin', { mm: number(shown, 2) })}
          />
        </>
      )}
    </svg>
  )
}

/** A dimension line with what it measures. */
function Span({ from, to, y, colour, label }: { from: number; to: number; y: number; colour: string; label: string }) {
  return (
    <g>
      <path
        d={`M${from} ${y}H${to}M${from} ${y - 6}v12M${to} ${y - 6}v12`}
        stroke={colour}
        strokeWidth={1.5}
        fill="none"
      />
      <rect
        x={(from + to) / 2 - label.length * 4.2}
        y={y - 11}
        width={label.length * 8.4}
        height={21}
        fill={ink('paper')}
      />
      <text x={(from + to) / 2} y={y + 5} fontSize={15} fontWeight={600} textAnchor="middle" fill={colour}>
        {label}
      </text>
    </g>
  )
}
