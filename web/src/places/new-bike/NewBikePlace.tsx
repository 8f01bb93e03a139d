import { Box, Button, Stack, Typography } from '@mui/material'
import { useWatch } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { Suggested } from '../../forms/Suggested.tsx'
import { Group, Pair } from './Group.tsx'
import { ItsChain } from './ItsChain.tsx'
import { ItsDrive } from './ItsDrive.tsx'
import { useNewBike } from './useNewBike.ts'
import { useTitle } from '../../pieces/useTitle.ts'
import { WhoseBike } from './WhoseBike.tsx'

/** A bike that was never here is taken in: whose, what, its drive, its chain; then it is on the stand. */
export function NewBikePlace() {
  const { t } = useTranslation()
  const [search] = useSearchParams()
  const form = useNewBike(search.get('for') ?? '')
  const { known, drive, chainIs } = useWatch({ control: form.fields.control })
  useTitle(t('newBike.title'))
  return (
    <FormOf form={form} label={t('newBike.title')} sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1180 }}>
      <Typography variant="h2" component="h1" sx={{ mb: 2 }}>
        {t('newBike.title')}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
          columnGap: 5,
          rowGap: 2,
        }}
      >
        <Stack sx={{ gap: 1 }}>
          <Group title={t('newBike.whose')}>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: known == null ? 'minmax(0, 1.6fr) minmax(0, 1fr)' : 'minmax(0, 1fr)',
                gap: 1.5,
              }}
            >
              <WhoseBike />
              {known == null && <Line name="customer.new.phone" label={t('newBike.phone')} />}
            </Box>
          </Group>
          <Group title={t('newBike.bike')}>
            <Pair>
              <Line name="label" label={t('newBike.label')} />
              <Suggested name="kind" label={t('newBike.kind')} options={t('newBike.kinds', { returnObjects: true })} />
            </Pair>
            <Pair>
              <Line name="maker" label={t('newBike.maker')} />
              <Line name="model" label={t('newBike.model')} />
            </Pair>
            <Pair>
              <Line name="frameMark" label={t('newBike.frameMark')} />
              <Line name="tag" label={t('newBike.tag')} hint={t('newBike.tagHint')} />
            </Pair>
          </Group>
        </Stack>
        <Stack sx={{ gap: 1 }}>
          <ItsDrive type={drive?.type ?? 'derailleur'} />
          <ItsChain chainIs={chainIs ?? 'came'} />
          <RefusedElsewhere form={form} />
          <Button
            type="submit"
            variant="contained"
            disabled={form.busy}
            sx={{ minHeight: 60, px: 5, alignSelf: 'flex-start' }}
          >
            {t('newBike.save')}
          </Button>
        </Stack>
      </Box>
    </FormOf>
  )
}
