import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type BikeRecord, type CustomerLine } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { textIn } from '../../forms/typed.ts'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { OF_CUSTOMERS } from '../customers/useCustomer.ts'
import { WhoseBike } from '../new-bike/WhoseBike.tsx'

interface TypedPassing {
  known: CustomerLine | null
  customer: { id: string; new: { name: string; phone: string } }
}

/** A bike goes to somebody else, known or new, with its whole record. */
export function PassDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const bike = record.summary.label
  const form = useWriteForm({
    access: endpoints.passBike.access,
    ...OF_CUSTOMERS,
    schema: endpoints.passBike.body,
    start: { known: null, customer: { id: v7(), new: { name: '', phone: '' } } },
    read: ({ known, customer }: TypedPassing, id) =>
      known
        ? { id, customerId: known.id }
        : { id, customerId: customer.id, new: { name: customer.new.name, phone: textIn(customer.new.phone) } },
    fieldOf: (path) => (path === 'new.phone' ? 'customer.new.phone' : 'customer.new.name'),
    send: (body, { id }) => ask(endpoints.passBike, { params: { id: record.summary.id }, key: id, body }),
    done: ({ name }) => {
      tell(t('customer.passed', { bike, name }))
      onClose()
    },
  })
  const known = form.fields.watch('known')
  return (
    <FormDialog form={form} title={t('customer.passTitle', { bike })} go={t('customer.passGo')} onClose={onClose}>
      <WhoseBike />
      {known === null && <Line name="customer.new.phone" label={t('newBike.phone')} />}
    </FormDialog>
  )
}
