import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { PotBoard } from '@pelrin/contract'

/** What the steps take here by what was done, beside what is assumed: the plan is made by these. */
export function LearnedWords({ learned }: { learned: PotBoard['learned'] }) {
  const { t } = useTranslation()
  if (learned.length === 0)
    return (
      <Typography variant="body2" color="textSecondary">
        {t('pot.learned.none')}
      </Typography>
    )
  return (
    <Box component="section" aria-label={t('pot.learned.title')}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('pot.learned.title')}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {learned.map(({ step, minutes, from, to, stays, assumed }) => (
          <Typography component="li" key={step} variant="body2">
            {t('pot.learned.of', { step: t(`pot.learned.step.${step}`), minutes, from, to, count: stays, assumed })}
          </Typography>
        ))}
      </Box>
    </Box>
  )
}
