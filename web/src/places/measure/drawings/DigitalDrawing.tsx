import { useTranslation } from 'react-i18next'
import { percent } from '../../../messages/format.ts'
import { ChainRun } from '../../../pieces/ChainRun.tsx'
import { ink } from '../../../theme/theme.ts'
import { HEIGHT, WIDTH } from './frame.ts'

const PITCHES = 14
const SCALE = 3.55

/** A digital gauge over the run between its two feet, spread by the wear it shows; the rest lies as it was made. */
export function DigitalDrawing({ value, colour }: { value: number | null; colour: string }) {
  const { t } = useTranslation()
  const pitch = 12.7 * (1 + (value ?? 0) / 100)
  const left = (WIDTH - PITCHES * 12.7 * SCALE) / 2
  const x = (pin: number): number => left + pin * pitch * SCALE
  const y = 216
  const feet = [1, PITCHES - 1] as const
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={value === null ? t('measure.gaugeEmpty') : t('measure.shows', { value: percent(value) })}
      style={{ display: 'block' }}
    >
      <ChainRun pitches={PITCHES} at={x} y={y} radius={15} rollers={13.6} marked={[...feet]} colour={colour} />
      <path
        d={`M${x(feet[0]) + 15} ${y - 10}v-74h-40q-12 0 -12 -12V44q0 -14 14 -14H${WIDTH - left - 4}q14 0 14 14v76q0 12 -12 12h-${Math.max(2, WIDTH - left + 10 - 12 - (x(feet[1]) - 15))}v74h-13v-74H${x(feet[0]) + 28}v74Z`}
        fill={ink('paper')}
        stroke={ink('edge')}
        strokeWidth={2}
        strokeLinejoin="round"
      />
      <rect
        x={WIDTH / 2 - 128}
        y={46}
        width={256}
        height={74}
        rx={4}
        fill={ink('sheet')}
        stroke={ink('edge')}
        strokeWidth={1.4}
      />
      <text
        x={WIDTH / 2 + 62}
        y={102}
        fontSize={54}
        fontWeight={700}
        textAnchor="end"
        fill={value === null ? ink('line') : colour}
      >
        {value === null ? '–.– –' : percent(value)}
      </text>
      <text x={WIDTH / 2 + 76} y={102} fontSize={26} fontWeight={600} fill={ink('faint')}>
        %
      </text>
    </svg>
  )
}
