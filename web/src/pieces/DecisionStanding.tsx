import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { BikeRecord } from '@pelrin/contract'
import { day } from '../messages/format.ts'
import { ink } from '../theme/theme.ts'

/** The decision that stands beside the verdict, with its reason and person; nothing where none does. */
export function DecisionStanding({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const decision = record.decisions.find(({ stands }) => stands)
  if (!decision) return null
  return (
    <Box sx={{ borderLeft: `4px solid ${ink('brass')}`, pl: 1.5, mt: 0.5 }}>
      <Typography sx={{ fontWeight: 700 }}>
        {t('bike.decided', { decision: t(`bike.decision.${decision.decision}`), reason: decision.reason })}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {t('bike.decidedBy', { person: decision.person, date: day(decision.occurredAt) })}
      </Typography>
    </Box>
  )
}
