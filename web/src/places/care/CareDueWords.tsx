import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { careExplained } from '@pelrin/core'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { isDue, useCareWords } from '../../pieces/useCareWords.ts'
import { Why } from '../../pieces/Why.tsx'
import { ink } from '../../theme/theme.ts'
import { CareScale } from './CareScale.tsx'
import type { CareView } from './useCarePlace.ts'

/** When it is due and why, what is used up of its interval, and whether it is measured before. */
export function CareDueWords({ care, unit, assumed, measure }: CareView) {
  const { t } = useTranslation()
  const words = useCareWords()
  const { next, chain } = care
  if (!next) return <Typography sx={{ fontSize: 'size.say' }}>{t('caring.none')}</Typography>
  const { interval, usedKm, usedDays, checkFirst } = next
  return (
    <Box component="section" aria-label={t('caring.title')}>
      <Typography
        component="p"
        sx={{
          fontSize: { xs: 'size.head', md: 'size.big' },
          fontWeight: 700,
          lineHeight: 1.15,
          color: isDue(next) ? ink('brass') : 'inherit',
        }}
      >
        {words.due(next)}
      </Typography>
      <Typography sx={{ fontSize: 'size.lead' }}>
        {words.left(next, unit)}{' '}
        {interval.own ? t('caring.own') : t('caring.ofShop', { care: t(`care.${chain?.care ?? 'unknown'}`) })}{' '}
        <Why explanations={[careExplained(next, assumed.care)]} label={words.due(next)} lead={words.due(next)} />
      </Typography>
      {checkFirst && (
        <Stack
          direction="row"
          sx={{ gap: 2, alignItems: 'center', borderLeft: `6px solid ${ink('brass')}`, pl: 1.5, my: 1 }}
        >
          <Typography sx={{ fontWeight: 600, flex: 1 }}>{t('caring.checkFirst')}</Typography>
          <KeyButton of="care.measure" variant="outlined" onClick={measure}>
            {t('caring.measure')}
          </KeyButton>
        </Stack>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 2, mt: 1 }}>
        <CareScale label={t('caring.scaleKm')} used={usedKm} all={interval.km} unit="km" />
        {usedDays !== null && <CareScale label={t('caring.scaleDays')} used={usedDays} all={interval.days} unit="d" />}
      </Box>
    </Box>
  )
}
