import { Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { endpoints, type Colleague } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { DayLine } from '../../forms/DayLine.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { today } from '../../messages/format.ts'

/** Somebody leaves, on a day. */
export function LeavingDialog({ person, onClose }: { person: Colleague; onClose: () => void }) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.personLeaves.access,
    stale: [keys.people, keys.session],
    schema: endpoints.personLeaves.body,
    start: { on: today() },
    read: (typed) => typed,
    version: person.version,
    newerOf: (newer: Colleague) => ({ version: newer.version, typed: {} }),
    send: (body, { version }) => ask(endpoints.personLeaves, { params: { id: person.id }, version, body }),
    done: onClose,
  })
  return (
    <FormDialog
      form={form}
      title={t('people.leaveTitle', { name: person.name })}
      go={t('people.leaveGo')}
      onClose={onClose}
    >
      <Typography>{t('people.leaveNote')}</Typography>
      <DayLine name="on" label={t('people.lastDay')} until={today()} />
    </FormDialog>
  )
}
