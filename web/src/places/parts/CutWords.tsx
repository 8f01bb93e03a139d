import { Box, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { cutFor } from '@pelrin/core'
import type { JudgedChain, JudgedJoint } from '@pelrin/contract'

/** How the chosen chain is brought to its length: what comes off which end, what the ends must be, what to keep. */
export function CutWords({
  pitches,
  chain,
  joint,
}: {
  pitches: number
  chain: JudgedChain['part']
  joint: JudgedJoint['part']
}) {
  const { t } = useTranslation()
  // An odd count is closed by a half link, which no cut makes.
  if (pitches % 2 === 1) return null
  const { boxes, cuts, offcut, ends } = cutFor(chain, joint, pitches)
  const said = [
    ...(boxes > 1 ? [t('parts.cut.boxes', { count: boxes })] : []),
    ...(cuts.length === 0
      ? [t('parts.cut.none')]
      : cuts.map(({ pitches: count, end }) => t(`parts.cut.${end}`, { count }))),
    t(`parts.cut.ends.${ends}`),
    ...(offcut > 0 ? [t('parts.cut.offcut', { count: offcut })] : []),
  ]
  return (
    <Box component="section" aria-label={t('parts.cut.title')}>
      <Typography variant="h3" component="h3" color="textSecondary">
        {t('parts.cut.title')}
      </Typography>
      <Typography variant="body2">{said.join(' ')}</Typography>
    </Box>
  )
}
