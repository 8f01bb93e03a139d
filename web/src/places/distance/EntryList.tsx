import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type Ledger } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { day, distance } from '../../messages/format.ts'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { ofLedger } from './useLedgerWrite.ts'

type Entry = Ledger['entries'][number]

/** Chains with what they ran here, and the odometer values and statements it follows from. */
export function EntryList({ bikeId, ledger, unit }: { bikeId: string; ledger: Ledger; unit: 'km' | 'mi' }) {
  const { t } = useTranslation()
  const [doing, setDoing] = useState<{ entry: Entry; what: 'correct' | 'remove' } | null>(null)
  return (
    <>
      <Box component="section" aria-label={t('distanceOf.chains')}>
        <Typography variant="h3" component="h2" color="textSecondary">
          {t('distanceOf.chains')}
        </Typography>
        {ledger.chains.map((chain) => (
          <Box key={chain.chainId} sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
            <Typography sx={{ fontWeight: 600 }}>
              {chain.name}
              {chain.fitted && `, ${t('distanceOf.onNow')}`}
            </Typography>
            <Typography variant="body2" color="textSecondary">
              {t('distanceOf.chainRan', { km: distance(chain.km, unit), weighted: distance(chain.weightedKm, unit) })},{' '}
              {day(chain.from)}
            </Typography>
          </Box>
        ))}
      </Box>
      <Box component="section" aria-label={t('distanceOf.odometer')}>
        <Typography variant="h3" component="h2" color="textSecondary">
          {t('distanceOf.odometer')}
        </Typography>
        {ledger.entries.map((entry) => (
          <Stack
            key={entry.id}
            direction="row"
            sx={{
              alignItems: 'center',
              justifyContent: 'space-between',
              borderTop: 1,
              borderColor: 'divider',
              minHeight: 46,
            }}
          >
            <Typography variant="body2">
              <Box component="span" sx={{ fontWeight: 600 }}>
                {entry.kind === 'odometer'
                  ? distance(entry.km, entry.unit)
                  : t(entry.kind === 'statement' ? 'distanceOf.perYear' : 'distanceOf.hadRun', {
                      km: distance(entry.km, entry.unit),
                    })}
              </Box>{' '}
              {day(entry.at)}
              {entry.restarted && `, ${t('distanceOf.restarted')}`}
            </Typography>
            <Stack direction="row">
              {(['correct', 'remove'] as const).map((what) => (
                <Button key={what} size="small" sx={{ minHeight: 44 }} onClick={() => setDoing({ entry, what })}>
                  {t(`distanceOf.${what}`)}
                </Button>
              ))}
            </Stack>
          </Stack>
        ))}
      </Box>
      {doing && <ChangeEntry bikeId={bikeId} {...doing} onClose={() => setDoing(null)} />}
    </>
  )
}

function ChangeEntry({
  bikeId,
  entry,
  what,
  onClose,
}: {
  bikeId: string
  entry: Entry
  what: 'correct' | 'remove'
  onClose: () => void
}) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState(entry.typed)
  return (
    <ReasonDialog
      title={what === 'correct' ? `${t('distanceOf.correct')}: ${entry.typed}` : t('distanceOf.removeTitle')}
      go={t(`distanceOf.${what}`)}
      stale={ofLedger(bikeId)}
      onClose={onClose}
      onReason={async (reason) => {
        const id = v7()
        const asking = { params: { id: entry.id }, key: id }
        if (what === 'remove') await ask(endpoints.removeEntry, { ...asking, body: { id, reason } })
        else
          await ask(endpoints.correctEntry, {
            ...asking,
            // What stood there was asked about when it was written; a correction lower than its forerunner stands as typed.
            body: { id, typed, unit: entry.unit, lower: entry.restarted ? 'restarted' : 'as-it-is', reason },
          })
      }}
    >
      {what === 'correct' && (
        <TextField
          autoFocus
          label={`${t('distanceOf.odometerNew')}, ${entry.unit}`}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          sx={{ mt: 1 }}
        />
      )}
    </ReasonDialog>
  )
}
