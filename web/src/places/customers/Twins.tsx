import { Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, type CustomerPage } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useWrite } from '../../api/useWrite.ts'
import { Refused } from '../../forms/Refused.tsx'
import { OF_CUSTOMERS } from './useCustomer.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** Whom they were made one with today, to be taken back. */
export function Twins({ customer: { id, merged } }: { customer: CustomerPage }) {
  const { t } = useTranslation()
  const { busy, wrong, write } = useWrite({ access: endpoints.unmergeCustomer.access, ...OF_CUSTOMERS })
  return merged.map((twin) => (
    <Stack key={twin.id} direction="row" sx={{ gap: 1.5, alignItems: 'center', mt: 1 }} role="status">
      <Typography>{t('customer.mergedWith', { name: twin.name })}</Typography>
      <Allowed right="customers">
        <Button
          disabled={busy}
          onClick={() =>
            void write(() => ask(endpoints.unmergeCustomer, { params: { id }, body: { otherId: twin.id }, key: v7() }))
          }
        >
          {t('customer.unmerge')}
        </Button>
      </Allowed>
      <Refused>{wrong?.sentence}</Refused>
    </Stack>
  ))
}
