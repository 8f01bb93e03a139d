import { Box, Button, MenuItem, Paper, Stack, TextField, Typography } from '@mui/material'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useForm } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import type * as v from 'valibot'
import { endpoints, SignIn } from '@pelrin/contract'
import { ask, ProblemError } from '../../api/client.ts'
import { keys, useDoor } from '../../api/queries.ts'
import { Plate } from '../../pieces/Plate.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { WearRule } from '../../pieces/WearRule.tsx'
import { ink } from '../../theme/theme.ts'
import { problemText } from '../../messages/said.ts'

/** A mark for the rule on the door: nothing measured, just what it looks like. */
const DOOR_MARKS = [{ value: 0.31, over: null, under: null, u: 0.04, worst: true }]

export function SignInPlace() {
  const { t } = useTranslation()
  const door = useDoor()
  const client = useQueryClient()
  const form = useForm<v.InferInput<typeof SignIn>>({
    resolver: valibotResolver(SignIn),
    defaultValues: { shop: '', name: '', password: '' },
  })
  const { errors, isSubmitting } = form.formState
  const shops = door.data?.shops
  const { setValue } = form
  useEffect(() => {
    if (shops?.[0]) setValue('shop', shops[0].code)
  }, [shops, setValue])
  if (door.isPending) return <Loading />
  if (!door.data) return <Failure error={door.error} again={() => void door.refetch()} />

  const signIn = form.handleSubmit(async (body) => {
    try {
      client.setQueryData(keys.session, await ask(endpoints.signIn, { body }))
    } catch (error) {
      const problem = error instanceof ProblemError ? error.problem : null
      form.setError('password', {
        message: problem ? problemText(t, problem.code, { minutes: 15 }) : t('problems.database-away'),
      })
    }
  })
  const told = (message: string | undefined): string =>
    message === undefined ? ' ' : t(`problems.${message}`, { defaultValue: message })
  const demo = door.data.demoAccounts
  return (
    <Box component="main" sx={{ minHeight: '100dvh', display: 'grid', placeItems: 'center', p: 3 }}>
      <Box sx={{ width: 'min(880px, 100%)' }}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 2, mb: 1 }}>
          <Plate shape="whole" colour={ink('steel')} height={34} />
          <Typography component="h1" sx={{ fontSize: 46, fontWeight: 700, lineHeight: 1 }}>
            {t('app.name')}
          </Typography>
        </Stack>
        <Typography color="textSecondary" sx={{ mb: 2, fontSize: 19 }}>
          {t('app.line')}
        </Typography>
        <Box aria-hidden sx={{ mb: 4 }}>
          <WearRule size="large" marks={DOOR_MARKS} limit={0.5} watch={0.4} colour={ink('steel')} />
        </Box>
        <Box
          sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: demo.length > 0 ? '1fr 1fr' : '1fr' }, gap: 4 }}
        >
          <form onSubmit={(event) => void signIn(event)} noValidate>
            <Stack sx={{ gap: 0.5 }}>
              <Typography variant="h2" sx={{ mb: 1.5 }}>
                {t('signIn.title')}
              </Typography>
              {door.data.shops.length > 1 && (
                <TextField
                  select
                  label={t('signIn.shop')}
                  defaultValue={door.data.shops[0]?.code}
                  {...form.register('shop')}
                  helperText=" "
                >
                  {door.data.shops.map((shop) => (
                    <MenuItem key={shop.code} value={shop.code}>
                      {shop.name}
                    </MenuItem>
                  ))}
                </TextField>
              )}
              <TextField
                {...form.register('name')}
                label={t('signIn.name')}
                autoFocus
                error={!!errors.name}
                helperText={told(errors.name?.message)}
                slotProps={{
                  htmlInput: { autoComplete: 'username', autoCapitalize: 'none' },
                }}
              />
              <TextField
                {...form.register('password')}
                label={t('signIn.password')}
                type="password"
                error={!!errors.password}
                helperText={told(errors.password?.message)}
                slotProps={{ htmlInput: { autoComplete: 'current-password' } }}
              />
              <Button type="submit" variant="contained" size="large" disabled={isSubmitting} sx={{ minHeight: 56 }}>
                {t('signIn.go')}
              </Button>
            </Stack>
          </form>
          {demo.length > 0 && (
            <Box>
              <Typography variant="h2" sx={{ mb: 0.5 }}>
                {t('signIn.demo')}
              </Typography>
              <Typography variant="body2" color="textSecondary" sx={{ mb: 1.5 }}>
                {t('signIn.demoNote')}
              </Typography>
              <Stack sx={{ gap: 1 }}>
                {demo.map((account) => (
                  <Paper
                    key={account.signInName}
                    component="button"
                    type="button"
                    variant="outlined"
                    onClick={() => {
                      form.setValue('name', account.signInName)
                      form.setValue('password', account.password)
                      void signIn()
                    }}
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
          )}
        </Box>
      </Box>
    </Box>
  )
}
