import { Button, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { piecesIn } from '@pelrin/core'
import { Link } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type Job } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { ago, number } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'
import { JobBill } from './JobBill.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { staleOfBike } from '../../api/useBikeWrite.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'

/** What a closed job wrote, in words; and, within the day, a way back. */
export function EndedJob({
  job,
  baselineWanted,
  onAnother,
}: {
  job: Job
  /** Nobody has measured the new chain yet. */
  baselineWanted: boolean
  onAnother: () => void
}) {
  const { t } = useTranslation()
  const { stale } = staleOfBike(job.bikeId)
  const [undoing, setUndoing] = useState(false)
  const { written } = job
  const said = written
    ? [
        written.newChainId === null
          ? t('jobs.wrote.back')
          : t('jobs.wrote.new', { chain: job.parts.chain, count: job.written?.pitches ?? job.plan.chain.pitches }),
        ...(written.oldReason === null ? [] : [t('jobs.wrote.old', { reason: t(`jobs.reason.${written.oldReason}`) })]),
        ...(written.used.length > 0 ? [t('jobs.wrote.used', { count: piecesIn(written.used) })] : []),
        t('jobs.wrote.minutes', { count: Number(number(written.minutes, 0)) }),
      ]
    : []
  return (
    <Stack sx={{ gap: 2, maxWidth: 760 }}>
      <Typography component="h2" sx={{ fontSize: 'size.big', fontWeight: 700 }}>
        {t(job.state === 'closed' ? 'jobs.closed' : 'jobs.stopped', { when: ago(job.closedAt ?? job.openedAt) })}
      </Typography>
      {said.map((line) => (
        <Typography key={line} sx={{ fontSize: 'size.say' }}>
          {line}
        </Typography>
      ))}
      {written?.newChainId != null && job.state === 'closed' && (
        <Typography sx={{ fontSize: 'size.say', fontWeight: 600, color: ink(baselineWanted ? 'brass' : 'steel') }}>
          {t(baselineWanted ? 'jobs.baselineWanted' : 'jobs.baselineThere')}
        </Typography>
      )}
      {written && <JobBill before={job.parts.estimate ?? null} after={written.bill ?? null} />}
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap' }}>
        {written?.newChainId != null && baselineWanted && (
          <KeyButton
            of="jobOfBike.measure"
            component={Link}
            to={`/bikes/${job.bikeId}/measure?back=job`}
            variant="contained"
            sx={{ minHeight: 64, fontSize: 'size.say' }}
          >
            {t('jobs.measureNow')}
          </KeyButton>
        )}
        <Button component={Link} to={`/bikes/${job.bikeId}/sheets/customer`} variant="outlined" sx={{ minHeight: 64 }}>
          {t('bike.sheet')}
        </Button>
        <Button
          component={Link}
          to={`/bikes/${job.bikeId}/sheets/carry-card`}
          variant="outlined"
          sx={{ minHeight: 64 }}
        >
          {t('sheet.carryCard')}
        </Button>
        <Button variant="outlined" onClick={onAnother} sx={{ minHeight: 64 }}>
          {t('jobs.another')}
        </Button>
        {job.canUndo && (
          <Allowed right="work">
            <Button variant="outlined" onClick={() => setUndoing(true)} sx={{ minHeight: 64 }}>
              {t('jobs.undo')}
            </Button>
          </Allowed>
        )}
      </Stack>
      {undoing && (
        <ReasonDialog
          access={endpoints.undoJob.access}
          title={t('jobs.undo')}
          go={t('jobs.undo')}
          stale={stale}
          onClose={() => setUndoing(false)}
          onReason={async (reason) => {
            await ask(endpoints.undoJob, { params: { id: job.id }, key: v7(), body: { reason } })
          }}
        >
          <Typography color="textSecondary">{t('jobs.undoHint')}</Typography>
        </ReasonDialog>
      )}
    </Stack>
  )
}
