import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { standardMinutes, type WaxCase } from '@pelrin/core'
import { number } from '../../messages/format.ts'

/** What a chain is as it goes into the wax, and what that changes. */
export function WaxCaseWords({ is, steps }: { is: WaxCase; steps: readonly { readonly minutes: number }[] }) {
  const { t } = useTranslation()
  return (
    <Box
      component="section"
      aria-label={t('caring.waxCaseTitle')}
      sx={{ borderLeft: 5, borderColor: 'primary.main', pl: 1.5, py: 0.25 }}
    >
      <Typography sx={{ fontWeight: 700 }}>
        {t(`caring.waxCase.${is}.what`)}, {t('caring.waxMinutes', { minutes: number(standardMinutes(steps), 0) })}
      </Typography>
      <Typography color="textSecondary">{t(`caring.waxCase.${is}.why`)}</Typography>
    </Box>
  )
}
