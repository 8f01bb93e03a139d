import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Divider,
  ListItemText,
  Menu,
  MenuItem,
  TextField,
} from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import * as v from 'valibot'
import { endpoints, SwitchPerson, type Session } from '@pelrin/contract'
import { ask, ProblemError } from '../api/client.ts'
import { keys } from '../api/queries.ts'

/** Who is at the bench; another person takes over by initials and PIN. */
export function PersonMenu({ session }: { session: Session }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { mode, systemMode, setMode } = useColorScheme()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [switching, setSwitching] = useState(false)
  const dark = (mode === 'system' ? systemMode : mode) === 'dark'
  const close = (): void => setAnchor(null)
  const signOut = async (): Promise<void> => {
    close()
    await ask(endpoints.signOut).catch(() => undefined)
    client.clear()
    client.setQueryData(keys.session, null)
  }
  return (
    <>
      <Button
        color="inherit"
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="menu"
        aria-label={`${t('person.here')}: ${session.person.name}`}
        sx={{ minHeight: 48, px: 1.5, fontWeight: 700 }}
      >
        {session.person.name.split(' ')[0]}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem
          sx={{ minHeight: 48 }}
          onClick={() => {
            close()
            setSwitching(true)
          }}
        >
          {t('person.switch')}
        </MenuItem>
        <MenuItem sx={{ minHeight: 48 }} onClick={() => setMode(dark ? 'light' : 'dark')}>
          {t('app.light')}
        </MenuItem>
        <Divider />
        <MenuItem sx={{ minHeight: 48 }} onClick={() => void signOut()}>
          <ListItemText primary={t('person.out')} secondary={t('person.outWaiting')} />
        </MenuItem>
      </Menu>
      {switching && <SwitchDialog onClose={() => setSwitching(false)} />}
    </>
  )
}

/** What is typed to take over: a PIN, or the password the first time on this device. */
interface TakingOver {
  initials: string
  secret: string
}

function SwitchDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [byPassword, setByPassword] = useState(false)
  const form = useForm<TakingOver>({ defaultValues: { initials: '', secret: '' } })
  const { errors, isSubmitting } = form.formState
  const take = form.handleSubmit(async ({ initials, secret }) => {
    const body = { initials, ...(byPassword ? { password: secret } : { pin: secret }) }
    const checked = v.safeParse(SwitchPerson, body)
    if (!checked.success) {
      for (const issue of checked.issues)
        form.setError(v.getDotPath(issue) === 'initials' ? 'initials' : 'secret', {
          message: t(`problems.${issue.message}`),
        })
      return
    }
    try {
      client.setQueryData(keys.session, await ask(endpoints.switchPerson, { body: checked.output }))
      // What the one before saw may not be for the one who is here now.
      void client.invalidateQueries()
      onClose()
    } catch (error) {
      const problem = error instanceof ProblemError ? error.problem : null
      if (problem?.code === 'pin-first-password') {
        setByPassword(true)
        form.setValue('secret', '')
        form.setFocus('secret')
      }
      form.setError('secret', { message: problem?.detail ?? t('problems.database-away') })
    }
  })
  const told = (error: { message?: string } | undefined): string => error?.message ?? ' '
  return (
    <Dialog open onClose={onClose} aria-labelledby="switch-title">
      <form onSubmit={(event) => void take(event)} noValidate>
        <DialogTitle id="switch-title">{t('person.switch')}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1, width: 360, maxWidth: '100%' }}>
          <TextField
            {...form.register('initials')}
            autoFocus
            label={t('person.initials')}
            error={!!errors.initials}
            helperText={told(errors.initials)}
            sx={{ mt: 1 }}
          />
          <TextField
            {...form.register('secret')}
            type="password"
            label={t(byPassword ? 'signIn.password' : 'person.pin')}
            error={!!errors.secret}
            helperText={told(errors.secret)}
            slotProps={{ htmlInput: { inputMode: byPassword ? 'text' : 'numeric', autoComplete: 'off' } }}
          />
          <Button onClick={() => setByPassword(!byPassword)} sx={{ justifySelf: 'start', minHeight: 48, ml: -1 }}>
            {t(byPassword ? 'person.byPin' : 'person.byPassword')}
          </Button>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{t('app.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={isSubmitting}>
            {t('person.take')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
