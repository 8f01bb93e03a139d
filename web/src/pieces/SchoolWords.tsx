import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { ChainVerdict } from '@pelrin/core'
import { percent } from '../messages/format.ts'
import { Plate } from './Plate.tsx'
import { VERDICT_LOOK } from './verdictLook.ts'

/** What the shop's other house rules would say of the same readings. */
export function SchoolWords({ verdict, stacked = false }: { verdict: ChainVerdict; stacked?: boolean }) {
  const { t } = useTranslation()
  if (verdict.schools.length === 0) return null
  return (
    <Box>
      <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.75 }}>
        {t('stand.schools')}
      </Typography>
      <Stack direction={stacked ? 'column' : 'row'} sx={{ gap: stacked ? 1 : 4 }}>
        {verdict.schools.map((school) => {
          const { plate, colour } = VERDICT_LOOK[school.word]
          return (
            <Stack key={school.ruleId} direction="row" sx={{ gap: 1.25, alignItems: 'center' }}>
              <Plate shape={plate} colour={colour} height={14} />
              <Box>
                <Typography variant="body2" sx={{ fontWeight: 600, color: colour }}>
                  {t(`word.${school.word}`)}
                </Typography>
                <Typography variant="body2" color="textSecondary">
                  {t(`school.${school.school}`)}, {school.plan === null ? '' : `${percent(school.plan)} / `}
                  {percent(school.limit)}
                </Typography>
              </Box>
            </Stack>
          )
        })}
      </Stack>
    </Box>
  )
}
