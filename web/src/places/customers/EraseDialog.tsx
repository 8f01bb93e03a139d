import { Box, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { endpoints, type CustomerPage } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { moneyText } from '../../messages/format.ts'
import { Loading } from '../../pieces/States.tsx'
import { OF_CUSTOMERS } from './useCustomer.ts'

/** Erases who they were, after a look at what goes and what stays: by typing their name, since it is not taken back. */
export function EraseDialog({ customer: { id, name }, onClose }: { customer: CustomerPage; onClose: () => void }) {
  const { t } = useTranslation()
  const erasure = useQuery({
    queryKey: [...keys.customer(id), 'erasure'],
    queryFn: ({ signal }) => ask(endpoints.erasure, { params: { id }, signal }),
    staleTime: 0,
  })
  const form = useWriteForm({
    access: endpoints.eraseCustomer.access,
    ...OF_CUSTOMERS,
    schema: undefined,
    start: { typed: '' },
    read: (typed) => typed,
    send: () => ask(endpoints.eraseCustomer, { params: { id }, long: true }),
    done: onClose,
  })
  const typed = form.fields.watch('typed')
  return (
    <FormDialog
      form={form}
      title={t('customer.eraseTitle', { name })}
      go={t('customer.eraseGo')}
      ready={erasure.data !== undefined && typed.trim().toLowerCase() === name.toLowerCase()}
      onClose={onClose}
    >
      {erasure.data ? (
        <Box>
          <Typography sx={{ fontWeight: 700 }}>{t('customer.goes')}</Typography>
          <Typography>{t('customer.goesWhat', { ...erasure.data })}</Typography>
          <Typography sx={{ fontWeight: 700, mt: 1 }}>{t('customer.stays')}</Typography>
          <Typography>
            {t('customer.staysWhat', { readings: erasure.data.readings, spent: moneyText(erasure.data.spent) })}
          </Typography>
        </Box>
      ) : (
        <Loading />
      )}
      <Typography sx={{ mt: 1 }}>{t('customer.eraseBackups')}</Typography>
      <Line name="typed" label={t('customer.eraseType', { name })} autoFocus />
    </FormDialog>
  )
}
