import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { RuleOutcome } from '@pelrin/contract'
import { Plate } from '../../pieces/Plate.tsx'
import { OUTCOME_LOOK } from './partLook.ts'
import { saidOf } from '../../messages/said.ts'

/** What every rule says of one part, each with its reason: what excludes it first. */
export function RulesOf({
  title,
  answer,
  rules,
}: {
  title: string
  /** Why it stands where it does, in one sentence. */
  answer: string
  rules: readonly RuleOutcome[]
}) {
  const { t } = useTranslation()
  const weight = { 'does-not-fit': 0, 'not-known': 1, caution: 2, fits: 3 } as const
  const ordered = [...rules].sort((a, b) => weight[a.outcome] - weight[b.outcome])
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3" component="h3" color="textSecondary" noWrap>
        {title}
      </Typography>
      <Typography data-testid="part-answer" sx={{ fontWeight: 600, lineHeight: 1.25 }}>
        {answer}
      </Typography>
      <Box
        component="ul"
        sx={{
          m: 0,
          p: 0,
          listStyle: 'none',
          display: 'grid',
          gridTemplateColumns: '32px minmax(0, 1fr)',
          rowGap: 0.5,
          mt: 0.5,
        }}
      >
        {ordered.map(({ rule, outcome, reason, values }) => (
          <Box component="li" key={rule} sx={{ display: 'contents' }}>
            <Box sx={{ height: 18, display: 'flex', alignItems: 'center' }}>
              <Plate
                shape={OUTCOME_LOOK[outcome].plate}
                colour={OUTCOME_LOOK[outcome].colour}
                height={11}
                title={t(`parts.outcome.${outcome}`)}
              />
            </Box>
            <Typography variant="body2" sx={{ lineHeight: '18px', fontWeight: outcome === 'fits' ? 400 : 600 }}>
              {saidOf(t, 'parts.reason', reason, values)}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  )
}
