import { HAND_SIGNS, type HandSign } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { ink } from '../../../theme/theme.ts'
import { HEIGHT, PAD, WIDTH } from './frame.ts'

/** What hands can notice, drawn: what was noticed stands out, the rest is faint. */
export function HandDrawing({ noticed }: { noticed: readonly HandSign[] }) {
  const { t } = useTranslation()
  const width = (WIDTH - 2 * PAD - 32) / 3
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={
        noticed.length === 0 ? t('measure.handEmpty') : noticed.map((sign) => t(`measure.sign.${sign}`)).join(', ')
      }
      style={{ display: 'block' }}
    >
      {HAND_SIGNS.map((sign, i) => {
        const on = noticed.includes(sign)
        return (
          <g
            key={sign}
            transform={`translate(${PAD + i * (width + 16)} 2)`}
            opacity={on || noticed.length === 0 ? 1 : 0.4}
          >
            <rect
              width={width}
              height={HEIGHT - 4}
              fill={ink('sheet')}
              stroke={on ? ink('brass') : ink('line')}
              strokeWidth={on ? 3 : 1}
            />
            <g transform={`translate(${width / 2} 138)`}>
              <HandSignFigure sign={sign} />
            </g>
          </g>
        )
      })}
    </svg>
  )
}

/** Pins of a chain on a ring: radius of each by its angle. */
function onRing(radiusAt: (degrees: number) => number, from: number, to: number, step: number): [number, number][] {
  const points: [number, number][] = []
  for (let degrees = from; degrees <= to; degrees += step) {
    const angle = (degrees * Math.PI) / 180
    points.push([radiusAt(degrees) * Math.cos(angle), radiusAt(degrees) * Math.sin(angle)])
  }
  return points
}

/** One sign, about 180 wide, round its own middle. */
export function HandSignFigure({ sign }: { sign: HandSign }) {
  if (sign === 'bends-sideways')
    return (
      <g>
        <path d="M-92 -52Q0 -52 92 -52" stroke={ink('line')} strokeWidth={10} strokeDasharray="9 5" fill="none" />
        <path d="M-92 -52Q-10 -52 84 46" stroke={ink('edge')} strokeWidth={12} fill="none" />
        <path d="M-92 -52Q-10 -52 84 46" stroke={ink('sheet')} strokeWidth={8} strokeDasharray="9 5" fill="none" />
        <path d="M92 -36q8 30 2 62m-10 -12l9 14 13 -10" stroke={ink('brass')} strokeWidth={3} fill="none" />
      </g>
    )
  const lifted = (degrees: number): number =>
    sign === 'lifts-off-ring'
      ? 74 + 17 * Math.exp(-((degrees / 20) ** 2))
      : 74 + Math.max(0, 5.5 * Math.sin(((degrees + 60) / 180) * Math.PI * 3))
  const pins = onRing(lifted, -78, 78, 13)
  return (
    <g transform="translate(-40 0)">
      {onRing(() => 74, -84, 84, 13).map(([x, y], i) => {
        const angle = Math.atan2(y, x)
        return (
          <path
            key={i}
            d="M-11 -9Q2 -4 10 0Q2 4 -11 9Z"
            transform={`translate(${x - 14 * Math.cos(angle)} ${y - 14 * Math.sin(angle)}) rotate(${(angle * 180) / Math.PI + 6.5})`}
            fill={ink('blade')}
            stroke={ink('edge')}
          />
        )
      })}
      <path
        d={`M${pins.map(([x, y]) => `${x} ${y}`).join('L')}`}
        stroke={ink('edge')}
        strokeWidth={11}
        fill="none"
        strokeLinejoin="round"
        strokeLinecap="round"
      />
      <path
        d={`M${pins.map(([x, y]) => `${x} ${y}`).join('L')}`}
        stroke={ink('sheet')}
        strokeWidth={7.5}
        fill="none"
        strokeLinecap="round"
      />
      {pins.map(([x, y], i) => (
        <circle key={i} cx={x} cy={y} r={3} fill={ink('edge')} />
      ))}
      {sign === 'lifts-off-ring' && (
        <path d="M98 0h34m-11 -8l12 8 -12 8" stroke={ink('brass')} strokeWidth={3} fill="none" />
      )}
      {sign === 'gaps-as-it-turns' && (
        <path d="M-6 -34a36 36 0 0 1 0 68m12 -10l-13 10 -2 -15" stroke={ink('brass')} strokeWidth={3} fill="none" />
      )}
    </g>
  )
}
