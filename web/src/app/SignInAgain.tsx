import { Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, type Session } from '@pelrin/contract'
import { askAnew } from '../api/askAnew.ts'
import { ask } from '../api/client.ts'
import { keys } from '../api/queries.ts'
import { signingIn } from '../api/question.ts'
import { FormDialog } from '../forms/FormDialog.tsx'
import { Line } from '../forms/Line.tsx'
import { useWriteForm } from '../forms/useWriteForm.ts'
import { outbox } from '../outbox/outbox.ts'
import { useQuestion } from './useQuestion.ts'

/** Over whatever is half typed: somebody signs in, since the session here has ended, and the work goes on. */
export function SignInAgain({ session }: { session: Session }) {
  const { open, answer } = useQuestion(signingIn)
  return open ? <Sheet shop={session.shop.code} onEnd={answer} /> : null
}

function Sheet({ shop, onEnd }: { shop: string; onEnd: (signedIn: boolean) => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const form = useWriteForm({
    access: endpoints.signIn.access,
    schema: endpoints.signIn.body,
    start: { name: '', password: '' },
    read: (typed) => ({ shop, ...typed }),
    send: (body) => ask(endpoints.signIn, { body }),
    done: (session) => {
      client.setQueryData(keys.session, session)
      onEnd(true)
      void outbox.flush()
      void askAnew(client)
    },
  })
  return (
    <FormDialog form={form} title={t('session.over')} go={t('signIn.go')} onClose={() => onEnd(false)}>
      <Typography color="textSecondary">{t('session.overWhy')}</Typography>
      <Line name="name" label={t('signIn.name')} autoComplete="username" autoFocus />
      <Line name="password" label={t('signIn.password')} of="password" autoComplete="current-password" />
    </FormDialog>
  )
}
