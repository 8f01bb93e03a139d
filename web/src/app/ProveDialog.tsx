import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField, Typography } from '@mui/material'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useForm } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import type * as v from 'valibot'
import { endpoints, ProveAgain, type Session } from '@pelrin/contract'
import { ask, ProblemError } from '../api/client.ts'
import { onProve } from '../api/prove.ts'
import { keys } from '../api/queries.ts'

/** Asks for the password again before what is the owner's, when it was not typed lately. */
export function ProveDialog({ session }: { session: Session }) {
  const [open, setOpen] = useState(false)
  const answer = useRef<(proved: boolean) => void>(() => undefined)
  useEffect(
    () =>
      onProve(
        () =>
          new Promise<boolean>((done) => {
            answer.current = done
            setOpen(true)
          }),
      ),
    [],
  )
  if (!open) return null
  return (
    <Asked
      name={session.person.name}
      onEnd={(proved) => {
        setOpen(false)
        answer.current(proved)
      }}
    />
  )
}

function Asked({ name, onEnd }: { name: string; onEnd: (proved: boolean) => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const form = useForm<v.InferInput<typeof ProveAgain>>({
    resolver: valibotResolver(ProveAgain),
    defaultValues: { password: '' },
  })
  const { errors, isSubmitting } = form.formState
  const send = form.handleSubmit(async (body) => {
    try {
      client.setQueryData(keys.session, await ask(endpoints.proveAgain, { body }))
      onEnd(true)
    } catch (error) {
      form.setError('password', {
        message: error instanceof ProblemError ? error.problem.detail : t('problems.database-away'),
      })
    }
  })
  const wrong = errors.password?.message
  return (
    <Dialog open onClose={() => onEnd(false)} aria-labelledby="prove-title">
      <form onSubmit={(event) => void send(event)} noValidate>
        <DialogTitle id="prove-title">{t('prove.title')}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5, width: 380, maxWidth: '100%' }}>
          <Typography color="textSecondary">{t('prove.why', { name })}</Typography>
          <TextField
            {...form.register('password')}
            autoFocus
            type="password"
            label={t('signIn.password')}
            error={wrong !== undefined}
            helperText={wrong === undefined ? ' ' : t(`problems.${wrong}`, { defaultValue: wrong })}
            slotProps={{ htmlInput: { autoComplete: 'current-password' } }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={() => onEnd(false)}>{t('app.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={isSubmitting}>
            {t('prove.go')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
