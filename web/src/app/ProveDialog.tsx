import { Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type Session } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { proving } from '../api/question.ts'
import { keys } from '../api/queries.ts'
import { FormDialog } from '../forms/FormDialog.tsx'
import { Line } from '../forms/Line.tsx'
import { useWriteForm } from '../forms/useWriteForm.ts'

/** Asks for the password again before what is the owner's, when it was not typed lately. */
export function ProveDialog({ session }: { session: Session }) {
  const [open, setOpen] = useState(false)
  const answer = useRef<(proved: boolean) => void>(() => undefined)
  useEffect(
    () =>
      proving.onAsk(
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
  const form = useWriteForm({
    schema: endpoints.proveAgain.body,
    start: { password: '' },
    read: ({ password }) => ({ password }),
    send: (body) => ask(endpoints.proveAgain, { body }),
    // Whatever is refused here is refused of what was typed.
    fieldOf: () => 'password',
    done: (session) => {
      client.setQueryData(keys.session, session)
      onEnd(true)
    },
  })
  return (
    <FormDialog form={form} title={t('prove.title')} go={t('prove.go')} onClose={() => onEnd(false)}>
      <Typography color="textSecondary">{t('prove.why', { name })}</Typography>
      <Line name="password" label={t('signIn.password')} of="password" autoComplete="current-password" autoFocus />
    </FormDialog>
  )
}
