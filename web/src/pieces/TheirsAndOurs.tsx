import { Typography } from '@mui/material'
import { bandAt, type BandPoint } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { percent } from '../messages/format.ts'

/** What a reading the customer brought in says, beside what the shop's own readings have the chain at where it was taken. */
export function TheirsAndOurs({
  theirs,
  band,
  s,
}: {
  /** As it is said, with its unit. */
  theirs: string
  band: readonly BandPoint[]
  /** Thousand weighted km the chain had run. */
  s: number
}) {
  const { t } = useTranslation()
  const ours = bandAt(band, s)
  if (!ours) return null
  return (
    <Typography variant="body2">
      {t('bike.theirsAndOurs', { theirs, low: percent(Math.max(0, ours.low)), high: percent(Math.max(0, ours.high)) })}
    </Typography>
  )
}
