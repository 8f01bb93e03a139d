import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useRideAccount } from '../../api/queries.ts'
import { ago } from '../../messages/format.ts'
import { useLedgerWrite } from './useLedgerWrite.ts'

/** The ride service account a bike's rides are pulled from. */
export function RideAccountPane({ bikeId }: { bikeId: string }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const joined = useRideAccount(bikeId)
  const { busy, at, write } = useLedgerWrite(bikeId)
  const [name, setName] = useState('')
  const [token, setToken] = useState('')
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
            <Alert severity="warning">{t(`imports.stopped.${account.outcome.stopped}`)}</Alert>
          )}
          <Stack direction="row" sx={{ gap: 1 }}>
            <Button variant="outlined" disabled={busy} onClick={() => void pull(account.id)} sx={{ minHeight: 48 }}>
              {t('imports.pull')}
            </Button>
            <Button
              disabled={busy}
              sx={{ minHeight: 48 }}
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
        <Stack
          component="form"
          noValidate
          sx={{ gap: 0.5 }}
          onSubmit={(event) => {
            event.preventDefault()
            const id = v7()
            void write(async () => {
              await ask(endpoints.joinRideAccount, {
                params: { id: bikeId },
                key: id,
                body: { id, account: name, token },
              })
              await again()
            })
          }}
        >
          <Typography variant="body2" sx={{ mb: 1 }}>
            {t('imports.accountLead')}
          </Typography>
          <TextField
            size="small"
            label={t('imports.accountName')}
            value={name}
            onChange={(event) => setName(event.target.value)}
            error={(at('account') ?? at('')) !== undefined}
            helperText={at('account') ?? at('') ?? ' '}
          />
          <TextField
            size="small"
            label={t('imports.token')}
            value={token}
            onChange={(event) => setToken(event.target.value)}
            error={at('token') !== undefined}
            helperText={at('token') ?? ' '}
          />
          <Button type="submit" variant="outlined" disabled={busy} sx={{ minHeight: 48, alignSelf: 'flex-start' }}>
            {t('imports.join')}
          </Button>
        </Stack>
      )}
    </Box>
  )
}
