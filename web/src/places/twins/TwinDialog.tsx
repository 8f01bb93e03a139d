import { FormControlLabel, Radio, RadioGroup, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useController, useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { endpoints, type BikeRecord } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useBike } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { day } from '../../messages/format.ts'
import { OF_CUSTOMERS } from '../customers/useCustomer.ts'

/** The bike was entered twice: the other entry is looked for, looked at, and made one with this. */
export function TwinDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const { id, label } = record.summary
  const form = useWriteForm({
    access: endpoints.mergeBike.access,
    ...OF_CUSTOMERS,
    schema: undefined,
    start: { q: record.customer.name.split(' ')[0] ?? '', otherId: '' },
    read: (typed) => typed,
    send: (_, { id: key }, { otherId }) => ask(endpoints.mergeBike, { params: { id }, key, body: { otherId } }),
    done: () => {
      tell(t('bike.merged', { bike: label }))
      onClose()
    },
  })
  const { control } = form.fields
  const q = useWatch({ control, name: 'q' }).trim()
  const { field } = useController({ control, name: 'otherId' })
  const found = useQuery({
    queryKey: keys.find(q),
    queryFn: ({ signal }) => ask(endpoints.find, { query: { q }, signal }),
    enabled: q !== '',
    placeholderData: (before) => before,
  })
  const others = (found.data ?? []).filter((one) => one.id !== id)
  return (
    <FormDialog
      form={form}
      title={t('bike.twinTitle', { bike: label })}
      go={t('bike.twinGo')}
      ready={field.value !== ''}
      onClose={onClose}
    >
      <Typography color="textSecondary">{t('bike.twinNote', { bike: label })}</Typography>
      <Line name="q" label={t('bike.twinOther')} autoFocus />
      <RadioGroup aria-label={t('bike.twinOther')} value={field.value} onChange={(_, to) => field.onChange(to)}>
        {others.map((one) => (
          <FormControlLabel
            key={one.id}
            value={one.id}
            control={<Radio />}
            sx={{ minHeight: 48 }}
            label={`${one.customer.name}, ${one.label}, ${t('find.tag', { tag: one.tag })}`}
          />
        ))}
      </RadioGroup>
      {found.isSuccess && others.length === 0 && (
        <Typography role="status" color="textSecondary">
          {t('bike.twinNone')}
        </Typography>
      )}
      {field.value !== '' && <Look id={field.value} />}
    </FormDialog>
  )
}

/** What the other entry has, before it is this one's. */
function Look({ id }: { id: string }) {
  const { t } = useTranslation()
  const { data: other } = useBike(id)
  if (!other) return null
  const latest = other.readings[0]
  return (
    <Typography role="status">
      {t('bike.twinLook', { count: other.readings.length })}{' '}
      {other.chain && t('bike.twinChain', { chain: other.chain.name, day: day(other.chain.fittedAt) })}{' '}
      {latest && t('bike.twinLatest', { day: day(latest.occurredAt) })}
    </Typography>
  )
}
