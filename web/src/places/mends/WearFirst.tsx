import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { changeMinutes, standardMinutes, type VerdictWord } from '@pelrin/core'
import { number } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { StandingHeading } from '../../pieces/VerdictLine.tsx'
import { mendStepsOf, type Mending } from './useMendBench.ts'

/** What a standing says of mending; whatever else it is, it is measured first. */
const WORTH: Readonly<Partial<Record<VerdictWord, 'change' | 'closing' | 'mend'>>> = {
  change: 'change',
  'closing-in': 'closing',
  'keep-riding': 'mend',
}

/** What a broken chain is worth mending for: how worn it is, and what mending takes beside changing it. */
export function WearFirst(mending: Mending) {
  const { t } = useTranslation()
  const { known, summary, options, pitches, measureIt } = mending
  const { word } = summary.standing
  const mends = options.flatMap((option) => {
    const steps = mendStepsOf(mending, option)
    return steps ? [standardMinutes(steps)] : []
  })
  return (
    <Box component="section" aria-label={t('mends.wear')} sx={{ display: 'grid', gap: 0.5 }}>
      <StandingHeading summary={summary} height={24} />
      <Typography sx={{ fontWeight: word === 'change' ? 700 : 400 }}>
        {t(`mends.worth.${WORTH[word] ?? 'measure'}`)}
      </Typography>
      {known.handling && pitches !== null && mends.length > 0 && (
        <Typography color="textSecondary">
          {t('mends.minutesBeside', {
            mend: number(Math.min(...mends), 0),
            change: number(changeMinutes(known.handling, known.care, pitches), 0),
          })}
        </Typography>
      )}
      {word !== 'change' && (
        <KeyButton of="mend.measure" variant="outlined" sx={{ justifySelf: 'start' }} onClick={measureIt}>
          {t('mends.measure')}
        </KeyButton>
      )}
    </Box>
  )
}
