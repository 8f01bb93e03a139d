import { useTranslation } from 'react-i18next'
import { CHANNELS, type Channel } from '@pelrin/core'
import { endpoints, type CustomerPage } from '@pelrin/contract'
import { REMINDER_LANGUAGES } from '@pelrin/contract/messages'
import { ask } from '../../api/client.ts'
import { Choice } from '../../forms/Choice.tsx'
import { Flag } from '../../forms/Flag.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { asTyped, choiceIn, numberIn, textIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { weekdayName } from '../../messages/format.ts'
import { OF_CUSTOMERS } from './useCustomer.ts'

const typedOf = (customer: CustomerPage) => ({
  name: customer.name,
  phone: asTyped(customer.phone),
  email: asTyped(customer.email),
  language: customer.language,
  goodWeekday: asTyped(customer.goodWeekday),
  rhythmDays: asTyped(customer.rhythmDays),
  notes: customer.notes,
  reachedBy: asTyped(customer.reachedBy) as Channel | '',
  optedOut: customer.optedOut,
})

/** What is known of a customer, corrected. */
export function CustomerDialog({ customer, onClose }: { customer: CustomerPage; onClose: () => void }) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.changeCustomer.access,
    ...OF_CUSTOMERS,
    schema: endpoints.changeCustomer.body,
    start: typedOf(customer),
    read: ({ phone, email, goodWeekday, rhythmDays, reachedBy, ...rest }: ReturnType<typeof typedOf>) => ({
      ...rest,
      phone: textIn(phone),
      email: textIn(email),
      goodWeekday: numberIn(goodWeekday),
      rhythmDays: numberIn(rhythmDays),
      reachedBy: choiceIn(reachedBy),
    }),
    version: customer.version,
    newerOf: (newer: CustomerPage) => ({ version: newer.version, typed: typedOf(newer) }),
    send: (body, { version }) => ask(endpoints.changeCustomer, { params: { id: customer.id }, version, body }),
    done: onClose,
  })
  return (
    <FormDialog form={form} title={t('customer.changeTitle')} go={t('app.save')} onClose={onClose}>
      <Line name="name" label={t('customer.name')} longest={80} autoFocus />
      <Line name="phone" label={t('customer.phone')} longest={40} />
      <Line name="email" label={t('customer.email')} longest={120} />
      <Choice
        name="language"
        label={t('customer.language')}
        options={REMINDER_LANGUAGES.map((one) => [one, t(`reminding.language.${one}`)])}
      />
      <Choice
        name="reachedBy"
        label={t('customer.reachedBy')}
        options={[
          ['', t('customer.reach.either')],
          ...CHANNELS.map((one) => [one, t(`customer.reach.${one}`)] as const),
        ]}
      />
      <Choice
        name="goodWeekday"
        label={t('customer.goodWeekday')}
        options={[
          ['', t('customer.anyDay')],
          ...[1, 2, 3, 4, 5, 6, 7].map((one) => [String(one), weekdayName(`2024-01-0${one}`)] as const),
        ]}
      />
      <Line name="rhythmDays" label={t('customer.everyDays')} hint={t('customer.everyDaysHint')} of="whole" />
      <Line name="notes" label={t('customer.notes')} rows={3} longest={2000} />
      <Flag name="optedOut" label={t('customer.optOut')} />
    </FormDialog>
  )
}
