import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { ChainVerdict, School, VerdictWord } from '@pelrin/core'
import type { SpotMark } from '@pelrin/contract'
import { percent } from '../messages/format.ts'
import { VERDICT_LOOK } from './verdictLook.ts'
import { WEAR_SCALE } from '@pelrin/drawn'
import { WearRule } from './WearRule.tsx'

const WIDTH = 420
const ROW = 24

interface Line {
  readonly key: string
  readonly school: School
  readonly word: VerdictWord
  readonly limit: number
  readonly plan: number | null
}

/** Every house rule on one wear rule: where each would change the chain, and what it says of it now. */
export function SchoolsRule({
  verdict,
  school,
  marks,
}: {
  verdict: ChainVerdict
  school: School
  marks: readonly SpotMark[]
}) {
  const { t } = useTranslation()
  const x = WEAR_SCALE.medium
  const lines: Line[] = [
    { key: 'own', school, word: verdict.word, limit: verdict.limit, plan: verdict.plan },
    ...verdict.schools.map(({ ruleId, ...rest }) => ({ key: ruleId, ...rest })),
  ]
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider', pt: 1.5, pb: 0.5 }}>
      <WearRule
        size="medium"
        marks={marks}
        limit={verdict.limit}
        watch={verdict.watch}
        colour={VERDICT_LOOK[verdict.word].colour}
      />
      <svg
        viewBox={`0 0 ${WIDTH} ${lines.length * ROW + 6}`}
        width="100%"
        role="img"
        aria-label={lines
          .map((line) => `${t(`school.${line.school}`)} ${percent(line.limit)}: ${t(`word.${line.word}`)}`)
          .join('; ')}
        style={{ display: 'block' }}
      >
        {lines.map((line, i) => {
          const { colour } = VERDICT_LOOK[line.word]
          const y = i * ROW + 14
          const toLeft = x(line.limit) > WIDTH * 0.52
          return (
            <g key={line.key}>
              {line.plan !== null && (
                <line
                  x1={x(line.plan)}
                  x2={x(line.limit)}
                  y1={y}
                  y2={y}
                  stroke={colour}
                  strokeWidth={2}
                  strokeDasharray="3 3"
                />
              )}
              <path d={`M${x(line.limit)} ${y - 8}l6 8 -6 8 -6 -8Z`} fill={colour} />
              <text
                x={x(line.limit) + (toLeft ? -12 - (line.plan === null ? 0 : x(line.limit) - x(line.plan)) : 12)}
                y={y + 5}
                fontSize={13.5}
                fontWeight={i === 0 ? 700 : 500}
                textAnchor={toLeft ? 'end' : 'start'}
                fill={colour}
              >
                {t('schoolSays', { school: t(`school.${line.school}`), word: t(`wordInside.${line.word}`) })}
              </text>
            </g>
          )
        })}
      </svg>
    </Box>
  )
}
