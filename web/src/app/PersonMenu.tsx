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
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import type * as v from 'valibot'
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

function SwitchDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const form = useForm<v.InferInput<typeof SwitchPerson>>({
    resolver: valibotResolver(SwitchPerson),
    defaultValues: { initials: '', pin: '' },
  })
  const { errors, isSubmitting } = form.formState
  const take = form.handleSubmit(async (body) => {
    try {
      client.setQueryData(keys.session, await ask(endpoints.switchPerson, { body }))
      onClose()
    } catch (error) {
      form.setError('pin', { message: error instanceof ProblemError ? error.problem.code : 'database-away' })
    }
  })
  const told = (code: string | undefined): string => (code === undefined ? ' ' : t(`problems.${code}`, { minutes: 15 }))
  return (
    <Dialog open onClose={onClose} aria-labelledby="switch-title">
      <form onSubmit={(event) => void take(event)} noValidate>
        <DialogTitle id="switch-title">{t('person.switch')}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1, width: 340 }}>
          <TextField
            {...form.register('initials')}
            autoFocus
            label={t('person.initials')}
            error={!!errors.initials}
            helperText={told(errors.initials?.message)}
            sx={{ mt: 1 }}
          />
          <TextField
            {...form.register('pin')}
            type="password"
            label={t('person.pin')}
            error={!!errors.pin}
            helperText={told(errors.pin?.message)}
            slotProps={{ htmlInput: { inputMode: 'numeric', autoComplete: 'off' } }}
          />
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
