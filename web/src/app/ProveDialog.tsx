import { Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, type Session } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { proving } from '../api/question.ts'
import { keys } from '../api/queries.ts'
import { FormDialog } from '../forms/FormDialog.tsx'
import { Line } from '../forms/Line.tsx'
import { useWriteForm } from '../forms/useWriteForm.ts'
import { useQuestion } from './useQuestion.ts'

/** Asks for the password again before what is the owner's, when it was not typed lately. */
export function ProveDialog({ session }: { session: Session }) {
  const { open, answer } = useQuestion(proving)
  return open ? <Asked name={session.person.name} onEnd={answer} /> : null
}

function Asked({ name, onEnd }: { name: string; onEnd: (proved: boolean) => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const form = useWriteForm({
    access: endpoints.proveAgain.access,
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
