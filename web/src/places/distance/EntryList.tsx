import { Box, Button, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type Ledger } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { day, distance } from '../../messages/format.ts'
import { CorrectEntry } from './CorrectEntry.tsx'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
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
            <Allowed right="distance">
              <Stack direction="row">
                {(['correct', 'remove'] as const).map((what) => (
                  <Button key={what} size="small" sx={{ minHeight: 44 }} onClick={() => setDoing({ entry, what })}>
                    {t(`distanceOf.${what}`)}
                  </Button>
                ))}
              </Stack>
            </Allowed>
          </Stack>
        ))}
      </Box>
      {doing?.what === 'correct' && <CorrectEntry bikeId={bikeId} entry={doing.entry} onClose={() => setDoing(null)} />}
      {doing?.what === 'remove' && <RemoveEntry bikeId={bikeId} entry={doing.entry} onClose={() => setDoing(null)} />}
    </>
  )
}

function RemoveEntry({ bikeId, entry, onClose }: { bikeId: string; entry: Entry; onClose: () => void }) {
  const { t } = useTranslation()
  return (
    <ReasonDialog
      access={endpoints.removeEntry.access}
      title={t('distanceOf.removeTitle')}
      go={t('distanceOf.remove')}
      stale={ofLedger(bikeId)}
      onClose={onClose}
      onReason={async (reason) => {
        const id = v7()
        await ask(endpoints.removeEntry, { params: { id: entry.id }, key: id, body: { id, reason } })
      }}
    />
  )
}
