import { Button } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { keys } from '../api/queries.ts'
import { FormDialog } from '../forms/FormDialog.tsx'
import { Line } from '../forms/Line.tsx'
import { useWriteForm } from '../forms/useWriteForm.ts'

/** Another person takes over the device: by initials and a PIN, or by the password the first time on it. */
export function SwitchDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [byPassword, setByPassword] = useState(false)
  const form = useWriteForm({
    access: endpoints.switchPerson.access,
    schema: endpoints.switchPerson.body,
    start: { initials: '', secret: '' },
    read: ({ initials, secret }) => ({
      initials: initials.toUpperCase(),
      ...(byPassword ? { password: secret } : { pin: secret }),
    }),
    fieldOf: (path) => (path === 'initials' ? path : 'secret'),
    send: (body) => ask(endpoints.switchPerson, { body }),
    asked: (code) => {
      if (code !== 'pin-first-password') return false
      setByPassword(true)
      form.fields.setValue('secret', '')
      form.fields.setFocus('secret')
      return false
    },
    done: (session) => {
      client.setQueryData(keys.session, session)
      // What the one before saw may not be for the one who is here now.
      void client.invalidateQueries()
      onClose()
    },
  })
  return (
    <FormDialog form={form} title={t('person.switch')} go={t('person.take')} onClose={onClose}>
      <Line name="initials" label={t('person.initials')} autoFocus />
      <Line name="secret" label={t(byPassword ? 'signIn.password' : 'person.pin')} of="password" />
      <Button
        onClick={() => {
          setByPassword(!byPassword)
          form.fields.clearErrors()
        }}
        sx={{ justifySelf: 'start', ml: -1 }}
      >
        {t(byPassword ? 'person.byPin' : 'person.byPassword')}
      </Button>
    </FormDialog>
  )
}
