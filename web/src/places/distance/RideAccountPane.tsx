import { Alert, Box, Button, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useRideAccount } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ago } from '../../messages/format.ts'
import { FormOf } from '../../forms/FormOf.tsx'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { ofLedger, useLedgerWrite } from './useLedgerWrite.ts'
import { saidOf } from '../../messages/said.ts'

/** The ride service account a bike's rides are pulled from. */
export function RideAccountPane({ bikeId }: { bikeId: string }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const joined = useRideAccount(bikeId)
  const { busy, write } = useLedgerWrite(bikeId)
  const account = joined.data?.account
  const again = (): Promise<void> => client.invalidateQueries({ queryKey: keys.rideAccount(bikeId) })
  const pull = (id: string): Promise<boolean> =>
    write(async () => {
      await ask(endpoints.pullRides, { params: { id }, body: {} })
      await again()
    })
  return (
    <Box component="section" aria-label={t('imports.account')}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('imports.account')}
      </Typography>
      {account ? (
        <Stack sx={{ gap: 1 }}>
          <Typography>
            {account.account}{' '}
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {account.address}
            </Box>
          </Typography>
          <Typography variant="body2">
            {account.outcome && account.pulledAt
              ? t('imports.pulled', { when: ago(account.pulledAt), ...account.outcome })
              : t('imports.neverPulled')}
          </Typography>
          {account.outcome?.stopped != null && (
            <Alert severity="warning">{saidOf(t, 'imports.stopped', account.outcome.stopped)}</Alert>
          )}
          <Stack direction="row" sx={{ gap: 1 }}>
            <Button variant="outlined" disabled={busy} onClick={() => void pull(account.id)}>
              {t('imports.pull')}
            </Button>
            <Button
              disabled={busy}
              onClick={() =>
                void write(async () => {
                  await ask(endpoints.leaveRideAccount, { params: { id: account.id }, key: v7(), body: {} })
                  await again()
                })
              }
            >
              {t('imports.leave')}
            </Button>
          </Stack>
        </Stack>
      ) : (
        <JoinAccount bikeId={bikeId} />
      )}
    </Box>
  )
}

/** Joins an account of the ride service to a bike. */
function JoinAccount({ bikeId }: { bikeId: string }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const form = useWriteForm({
    access: endpoints.joinRideAccount.access,
    stale: [...ofLedger(bikeId), keys.rideAccount(bikeId)],
    schema: endpoints.joinRideAccount.body,
    start: { account: '', token: '' },
    read: (typed, id) => ({ id, ...typed }),
    send: (body, { id }) => ask(endpoints.joinRideAccount, { params: { id: bikeId }, key: id, body }),
    done: () => tell(t('distanceOf.saved')),
  })
  return (
    <FormOf form={form} sx={{ display: 'grid', gap: 0.5 }}>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {t('imports.accountLead')}
      </Typography>
      <Line name="account" label={t('imports.accountName')} />
      <Line name="token" label={t('imports.token')} />
      <RefusedElsewhere form={form} />
      <Button type="submit" variant="outlined" disabled={form.busy} sx={{ justifySelf: 'start' }}>
        {t('imports.join')}
      </Button>
    </FormOf>
  )
}
