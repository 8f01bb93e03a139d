import { Button, Link, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link as RouterLink } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, type BikeRecord } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useWrite } from '../../api/useWrite.ts'
import { Refused } from '../../forms/Refused.tsx'
import { OF_CUSTOMERS } from '../customers/useCustomer.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** Where a second entry of a bike leads; and at the first, what was made one with it today, to be taken back. */
export function TwinsOfBike({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const { id } = record.summary
  const { busy, wrong, write } = useWrite({
    access: endpoints.unmergeBike.access,
    ...OF_CUSTOMERS,
    stale: [['bike'], ['customer']],
  })
  return (
    <>
      {record.mergedInto && (
        <Typography role="status" sx={{ fontWeight: 700 }}>
          {t('bike.mergedInto')}{' '}
          <Link component={RouterLink} to={`/bikes/${record.mergedInto.id}`}>
            {record.mergedInto.label}
          </Link>
        </Typography>
      )}
      {record.merged.map((twin) => (
        <Stack key={twin.id} direction="row" role="status" sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
          <Typography>{t('bike.mergedWith', twin)}</Typography>
          <Allowed right="customers">
            <Button
              disabled={busy}
              onClick={() =>
                void write(() => ask(endpoints.unmergeBike, { params: { id }, body: { otherId: twin.id }, key: v7() }))
              }
            >
              {t('bike.unmerge')}
            </Button>
          </Allowed>
        </Stack>
      ))}
      <Refused>{wrong?.sentence}</Refused>
    </>
  )
}
