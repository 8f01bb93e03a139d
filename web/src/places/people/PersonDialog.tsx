import { useTranslation } from 'react-i18next'
import { endpoints, Role, type Colleague } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { Choice } from '../../forms/Choice.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm, type Sending } from '../../forms/useWriteForm.ts'
import { initialsOf, signInNameOf } from '../shop/typedShop.ts'
import { useFollows } from '../shop/useFollows.ts'

interface TypedPerson {
  name: string
  initials: string
  signInName: string
  role: Role
}

const typedOf = ({ name, initials, signInName, role }: Colleague): TypedPerson => ({ name, initials, signInName, role })

/** Somebody new, or what somebody is called and may do. */
export function PersonDialog({
  person,
  onClose,
  onAdded,
}: {
  person: Colleague | null
  onClose: () => void
  onAdded: (added: Colleague) => void
}) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.addPerson.access,
    stale: [keys.people, keys.session],
    schema: person ? endpoints.changePerson.body : endpoints.addPerson.body,
    start: person ? typedOf(person) : { name: '', initials: '', signInName: '', role: 'mechanic' },
    read: (typed: TypedPerson, id): unknown => (person ? typed : { id, ...typed }),
    ...(person
      ? { version: person.version, newerOf: (newer: Colleague) => ({ version: newer.version, typed: typedOf(newer) }) }
      : {}),
    send: (_, { id, version }: Sending, typed) =>
      person
        ? ask(endpoints.changePerson, { params: { id: person.id }, version, body: typed })
        : ask(endpoints.addPerson, { body: { id, ...typed }, key: id }),
    done: (now) => (person ? onClose() : onAdded(now)),
  })
  return (
    <FormDialog
      form={form}
      title={person ? t('people.changeTitle', { name: person.name }) : t('people.add')}
      go={t(person ? 'app.save' : 'people.addGo')}
      onClose={onClose}
    >
      <Fields />
    </FormDialog>
  )
}

function Fields() {
  const { t } = useTranslation()
  useFollows('name', 'initials', initialsOf)
  useFollows('name', 'signInName', signInNameOf)
  return (
    <>
      <Line name="name" label={t('people.name')} longest={80} autoFocus />
      <Line name="initials" label={t('people.initials')} longest={4} />
      <Line name="signInName" label={t('people.signInName')} longest={40} />
      <Choice
        name="role"
        label={t('people.role')}
        options={Role.options.map((one) => [one, t(`signIn.role.${one}`)])}
      />
    </>
  )
}
