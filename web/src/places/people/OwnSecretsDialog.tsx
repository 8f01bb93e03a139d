import { Tab, Tabs } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type Session } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'

const WHAT = ['password', 'pin'] as const
type What = (typeof WHAT)[number]

/** A new password, or a new PIN, of whoever is here. */
export function OwnSecretsDialog({ onClose }: { onClose: () => void }) {
  const [what, setWhat] = useState<What>('password')
  return what === 'password' ? (
    <NewPassword onClose={onClose} onOther={setWhat} />
  ) : (
    <NewPin onClose={onClose} onOther={setWhat} />
  )
}

interface Parts {
  readonly onClose: () => void
  readonly onOther: (what: What) => void
}

/** Whoever is here stays; what is theirs elsewhere may have ended. */
function useDone(onClose: () => void, said: string): (session: Session) => void {
  const client = useQueryClient()
  const { tell } = useSurroundings()
  return (session) => {
    client.setQueryData(keys.session, session)
    tell(said)
    onClose()
  }
}

function NewPassword({ onClose, onOther }: Parts) {
  const { t } = useTranslation()
  const done = useDone(onClose, t('people.ownDone'))
  const form = useWriteForm({
    access: endpoints.changeOwnPassword.access,
    schema: endpoints.changeOwnPassword.body,
    start: { now: '', next: '' },
    read: (typed) => typed,
    send: (body) => ask(endpoints.changeOwnPassword, { body }),
    done,
  })
  return (
    <FormDialog form={form} title={t('people.own')} go={t('people.ownGo')} onClose={onClose}>
      <Which what="password" onOther={onOther} />
      <Line name="now" label={t('people.ownNow')} of="password" autoComplete="current-password" autoFocus />
      <Line
        name="next"
        label={t('people.ownPassword')}
        hint={t('people.passwordHint')}
        of="password"
        autoComplete="new-password"
      />
    </FormDialog>
  )
}

function NewPin({ onClose, onOther }: Parts) {
  const { t } = useTranslation()
  const done = useDone(onClose, t('people.ownPinDone'))
  const form = useWriteForm({
    access: endpoints.changeOwnPin.access,
    schema: endpoints.changeOwnPin.body,
    start: { password: '', pin: '' },
    read: (typed) => typed,
    send: (body) => ask(endpoints.changeOwnPin, { body }),
    done,
  })
  return (
    <FormDialog form={form} title={t('people.own')} go={t('people.ownPinGo')} onClose={onClose}>
      <Which what="pin" onOther={onOther} />
      <Line name="password" label={t('people.ownNow')} of="password" autoComplete="current-password" autoFocus />
      <Line name="pin" label={t('people.ownPinTitle')} of="pin" longest={8} />
    </FormDialog>
  )
}

function Which({ what, onOther }: { what: What; onOther: (what: What) => void }) {
  const { t } = useTranslation()
  return (
    <Tabs value={what} onChange={(_, next: What) => onOther(next)} sx={{ mb: 1 }}>
      {WHAT.map((one) => (
        <Tab key={one} value={one} label={t(`people.${one}`)} />
      ))}
    </Tabs>
  )
}
