import { Box, Link, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link as Way } from 'react-router'
import { checksFor, complaintIn, COMPLAINTS, type Complaint, type ComplaintCheck } from '@pelrin/core'
import { useLineUp } from '../../api/queries.ts'

/** Where a check is done, for those that have a place of their own. */
const PLACE_OF: Readonly<Partial<Record<ComplaintCheck, string>>> = {
  wear: 'measure',
  teeth: 'other-wear',
  'other-wear': 'other-wear',
  pulleys: 'other-wear',
  break: 'mend',
  length: 'parts',
  joint: 'chains',
}

/** What the bike is in for today, and what is looked at for it, wear first. */
export function ComplaintChecks({ bikeId }: { bikeId: string }) {
  const { t } = useTranslation()
  const lineUp = useLineUp()
  const reason = lineUp.data?.visits.find(({ bike }) => bike.id === bikeId)?.reason ?? ''
  const [said, setSaid] = useState<Complaint | null>(null)
  const complaint = said ?? complaintIn(reason)
  return (
    <Stack component="section" aria-label={t('jobs.complaint')} sx={{ gap: 1 }}>
      <Typography variant="h2">{t('jobs.complaint')}</Typography>
      {reason !== '' && <Typography sx={{ fontSize: 'size.lead', fontWeight: 600 }}>{reason}</Typography>}
      <ToggleButtonGroup
        exclusive
        value={complaint}
        aria-label={t('jobs.complaint')}
        onChange={(_, next: Complaint | null) => next && setSaid(next)}
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(96px, 1fr))',
          gap: 1,
          '& > button.MuiToggleButton-root': { border: 1, borderColor: 'divider', borderRadius: 1, m: 0 },
        }}
      >
        {COMPLAINTS.map((one) => (
          <ToggleButton key={one} value={one} sx={{ px: 1.5 }}>
            {t(`jobs.complaintOf.${one}`)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {complaint && (
        <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
          {checksFor(complaint).map((check) => {
            const place = PLACE_OF[check]
            const words = t(`jobs.checkOf.${check}`)
            return (
              <Typography component="li" key={check} sx={{ py: 0.4 }}>
                {place === undefined ? (
                  words
                ) : (
                  <Link component={Way} to={`/bikes/${bikeId}/${place}`}>
                    {words}
                  </Link>
                )}
              </Typography>
            )
          })}
        </Box>
      )}
    </Stack>
  )
}
