import { Box, Button, Paper, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, type Output } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useDoor } from '../../api/queries.ts'
import { Choice } from '../../forms/Choice.tsx'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { Plate } from '../../pieces/Plate.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'

type Door = Output<typeof endpoints.door.result>

/** A mark for the rule on the door: nothing measured, just what it looks like. */
const DOOR_MARKS = [{ value: 0.31, over: null, under: null, u: 0.04, worst: true }]

/** The door of the shop. */
export function SignInPlace() {
  const { t } = useTranslation()
  const door = useDoor()
  if (door.isPending) return <Loading />
  if (!door.data) return <Failure error={door.error} again={() => void door.refetch()} />
  return (
    <Box component="main" sx={{ minHeight: '100dvh', display: 'grid', placeItems: 'center', p: 3 }}>
      <Box sx={{ width: 'min(880px, 100%)' }}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 2, mb: 1 }}>
          <Plate shape="whole" colour={ink('steel')} height={34} />
          <Typography component="h1" sx={{ fontSize: 'size.door', fontWeight: 700, lineHeight: 1 }}>
            {t('app.name')}
          </Typography>
        </Stack>
        <Typography color="textSecondary" sx={{ mb: 2, fontSize: 'size.lead' }}>
          {t('app.line')}
        </Typography>
        <Box aria-hidden sx={{ mb: 4 }}>
          <WearRule size="large" marks={DOOR_MARKS} limit={0.5} watch={0.4} colour={ink('steel')} />
        </Box>
        <SignInForm door={door.data} />
      </Box>
    </Box>
  )
}

function SignInForm({ door: { shops, demoAccounts } }: { door: Door }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const form = useWriteForm({
    access: endpoints.signIn.access,
    schema: endpoints.signIn.body,
    start: { shop: shops[0]?.code ?? '', name: '', password: '' },
    read: (typed) => typed,
    send: (body) => ask(endpoints.signIn, { body }),
    done: (session) => client.setQueryData(keys.session, session),
  })
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: demoAccounts.length > 0 ? '1fr 1fr' : '1fr' },
        gap: 4,
      }}
    >
      <FormOf form={form} label={t('signIn.title')} sx={{ display: 'flex', flexDirection: 'column', gap: 0.5 }}>
        <Typography variant="h2" sx={{ mb: 1.5 }}>
          {t('signIn.title')}
        </Typography>
        {shops.length > 1 && (
          <Choice name="shop" label={t('signIn.shop')} options={shops.map(({ code, name }) => [code, name])} />
        )}
        <Line name="name" label={t('signIn.name')} autoComplete="username" autoFocus />
        <Line name="password" label={t('signIn.password')} of="password" autoComplete="current-password" />
        <RefusedElsewhere form={form} />
        <Button type="submit" variant="contained" size="large" disabled={form.busy} sx={{ minHeight: 56 }}>
          {t('signIn.go')}
        </Button>
      </FormOf>
      {demoAccounts.length > 0 && (
        <DemoAccounts
          accounts={demoAccounts}
          onChoose={({ signInName, password }) => {
            form.fields.setValue('name', signInName)
            form.fields.setValue('password', password)
            form.submit()
          }}
        />
      )}
    </Box>
  )
}

/** Who can be tried in a demo shop. */
function DemoAccounts({
  accounts,
  onChoose,
}: {
  accounts: Door['demoAccounts']
  onChoose: (account: Door['demoAccounts'][number]) => void
}) {
  const { t } = useTranslation()
  return (
    <Box>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {t('signIn.demo')}
      </Typography>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 1.5 }}>
        {t('signIn.demoNote')}
      </Typography>
      <Stack sx={{ gap: 1 }}>
        {accounts.map((account) => (
          <Paper
            key={account.signInName}
            component="button"
            type="button"
            variant="outlined"
            onClick={() => onChoose(account)}
            sx={{
              minHeight: 56,
              px: 2,
              display: 'flex',
              alignItems: 'center',
              gap: 2,
              font: 'inherit',
              textAlign: 'left',
              cursor: 'pointer',
              '&:hover': { borderColor: ink('steel') },
            }}
          >
            <Box sx={{ flex: 1 }}>
              <Typography sx={{ fontWeight: 600 }}>{account.name}</Typography>
              <Typography variant="body2" color="textSecondary">
                {t(`signIn.role.${account.role}`)}
              </Typography>
            </Box>
            <Typography variant="body2">
              {account.signInName} / {account.password}
            </Typography>
          </Paper>
        ))}
      </Stack>
    </Box>
  )
}
