import { Box, Button, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useState } from 'react'
import { flushSync } from 'react-dom'
import { useTranslation } from 'react-i18next'
import { Link, useSearchParams } from 'react-router'
import { v7 } from 'uuid'
import { JOB_REASONS, OLD_FATES, type JobReason, type OldFate } from '@pelrin/core'
import { endpoints, type JobBill as Bill } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeParts } from '../../api/queries.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { ComplaintChecks } from './ComplaintChecks.tsx'
import { JobBill } from './JobBill.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { Refused } from '../../forms/Refused.tsx'

/** The reason an address names, such as that of a chain found broken; worn by itself. */
const reasonAsked = (asked: string | null): JobReason => JOB_REASONS.find((one) => one === asked) ?? 'worn'

/** Begins a job: why the chain comes off, what becomes of it, and what goes on. */
export function BeginJob({ bikeId, estimate }: { bikeId: string; estimate: Bill | null }) {
  const { t } = useTranslation()
  const [search] = useSearchParams()
  const [reason, setReason] = useState<JobReason>(reasonAsked(search.get('reason')))
  const [oldFate, setOldFate] = useState<OldFate>('scrapped')
  const parts = useBikeParts(bikeId)
  const { wrong, busy, write } = useBikeWrite(bikeId, endpoints.openJob.access)
  const begin = (): void =>
    void write(() => ask(endpoints.openJob, { params: { id: bikeId }, key: v7(), body: { id: v7(), reason, oldFate } }))
  useCommands('jobBegin', {
    // At once: Enter may follow in the same breath.
    reason: (digit) => {
      const one = JOB_REASONS[digit - 1]
      if (one) flushSync(() => setReason(one))
    },
    begin,
  })
  const kept = parts.data?.kept
  const best = parts.data?.chains.find(({ part }) => part.id === parts.data.chainId)
  const chain = kept
    ? kept.lines
        .map(({ maker, name, quantity }) => `${quantity > 1 ? `${quantity} × ` : ''}${maker} ${name}`)
        .join(', ')
    : best
      ? `${best.part.maker} ${best.part.name}`
      : ''
  const pitches = kept?.pitches ?? parts.data?.pitches ?? null
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 380px' },
        gap: 4,
        pt: 1.5,
      }}
    >
      <Stack sx={{ gap: 2.5 }}>
        <Stack component="section" aria-label={t('jobs.why')} sx={{ gap: 1 }}>
          <Typography variant="h2">{t('jobs.why')}</Typography>
          <ToggleButtonGroup
            exclusive
            value={reason}
            aria-label={t('jobs.why')}
            onChange={(_, next: JobReason | null) => next && setReason(next)}
            sx={{ flexWrap: 'wrap' }}
          >
            {JOB_REASONS.map((one, i) => (
              <ToggleButton key={one} value={one} sx={{ minHeight: 64, px: 2, gap: 1.25, fontSize: 'size.lead' }}>
                {t(`jobs.reason.${one}`)} <KeyCap>{String(i + 1)}</KeyCap>
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Stack>
        <Stack component="section" aria-label={t('jobs.fate')} sx={{ gap: 1 }}>
          <Typography variant="h2">{t('jobs.fate')}</Typography>
          <ToggleButtonGroup
            exclusive
            value={oldFate}
            aria-label={t('jobs.fate')}
            onChange={(_, next: OldFate | null) => next && setOldFate(next)}
            sx={{ flexWrap: 'wrap' }}
          >
            {OLD_FATES.map((one) => (
              <ToggleButton key={one} value={one} sx={{ minHeight: 64, px: 2, fontSize: 'size.lead' }}>
                {t(`jobs.fateOf.${one}`)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Stack>
        <Stack component="section" aria-label={t('jobs.goesOn')} sx={{ gap: 0.5 }}>
          <Typography variant="h2">{t('jobs.goesOn')}</Typography>
          <Typography sx={{ fontSize: 'size.say', fontWeight: 600 }}>
            {chain === '' ? t('app.unknown') : chain}
            {pitches !== null && `, ${t('jobs.pitches', { count: pitches })}`}
          </Typography>
          <Button component={Link} to={`/bikes/${bikeId}/parts`} variant="outlined" sx={{ alignSelf: 'flex-start' }}>
            {t('jobs.chooseParts')}
          </Button>
        </Stack>
        {estimate && (
          <Stack component="section" aria-label={t('jobs.estimate')} sx={{ gap: 0.5 }}>
            <Typography variant="h2">{t('jobs.estimate')}</Typography>
            <JobBill before={estimate} after={null} />
          </Stack>
        )}
        <Refused>{wrong?.sentence}</Refused>
        <KeyButton
          of="jobBegin.begin"
          variant="contained"
          disabled={busy || parts.isPending}
          onClick={begin}
          sx={{ minHeight: 72, fontSize: 'size.say', alignSelf: 'flex-start', px: 6, position: 'sticky', bottom: 8 }}
        >
          {t('jobs.begin')}
        </KeyButton>
      </Stack>
      <ComplaintChecks bikeId={bikeId} />
    </Box>
  )
}
