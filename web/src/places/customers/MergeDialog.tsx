import { Box, FormControlLabel, Radio, RadioGroup, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useController, useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { endpoints, type CustomerPage } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { OF_CUSTOMERS, useCustomer } from './useCustomer.ts'

/** They were entered twice: the other is looked for, looked at, and made one with them. */
export function MergeDialog({ customer, onClose }: { customer: CustomerPage; onClose: () => void }) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.mergeCustomer.access,
    ...OF_CUSTOMERS,
    schema: undefined,
    start: { q: customer.name.split(' ')[0] ?? '', otherId: '' },
    read: (typed) => typed,
    send: (_, { id }, { otherId }) =>
      ask(endpoints.mergeCustomer, { params: { id: customer.id }, key: id, body: { otherId } }),
    done: onClose,
  })
  const { control } = form.fields
  const q = useWatch({ control, name: 'q' }).trim()
  const { field } = useController({ control, name: 'otherId' })
  const found = useQuery({
    queryKey: keys.customers(q),
    queryFn: ({ signal }) => ask(endpoints.customers, { query: { q }, signal }),
    enabled: q !== '',
    placeholderData: (before) => before,
  })
  const others = (found.data ?? []).filter(({ id }) => id !== customer.id)
  return (
    <FormDialog
      form={form}
      title={t('customer.mergeTitle', { name: customer.name })}
      go={t('customer.mergeGo')}
      ready={field.value !== ''}
      onClose={onClose}
    >
      <Typography color="textSecondary">{t('customer.mergeNote', { name: customer.name })}</Typography>
      <Line name="q" label={t('customer.other')} autoFocus />
      <RadioGroup aria-label={t('customer.other')} value={field.value} onChange={(_, to) => field.onChange(to)}>
        {others.map(({ id, name, phone, bikes }) => (
          <FormControlLabel
            key={id}
            value={id}
            control={<Radio />}
            sx={{ minHeight: 48 }}
            label={[name, phone, ...bikes].filter((one) => one !== null).join(', ')}
          />
        ))}
      </RadioGroup>
      {field.value !== '' && <Look id={field.value} />}
    </FormDialog>
  )
}

/** What the other has, before it is theirs. */
function Look({ id }: { id: string }) {
  const { t } = useTranslation()
  const { data: other } = useCustomer(id)
  if (!other) return null
  return (
    <Box role="status">
      <Typography>
        {t('customer.mergeLook', {
          bikes: other.bikes.filter(({ now }) => now).length,
          visits: other.visits.length,
          messages: other.messages.length,
        })}
      </Typography>
    </Box>
  )
}
