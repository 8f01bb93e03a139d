import { Box, Stack } from '@mui/material'
import { useEffect } from 'react'
import { useFormContext } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { Choice } from '../../forms/Choice.tsx'
import { Line } from '../../forms/Line.tsx'
import { Pick } from '../../forms/Pick.tsx'
import { useCareOptions } from '../../app/useCareOptions.ts'
import { Group } from './Group.tsx'
import type { TypedBike } from './newBike.ts'

/** The chain that is on it, and what its odometer shows. */
export function ItsChain({ chainIs }: { chainIs: TypedBike['chainIs'] }) {
  const { t } = useTranslation()
  const { usual, options } = useCareOptions()
  const { getValues, setValue } = useFormContext<TypedBike>()
  // A new chain will be treated as chains are here; of one that came with the bike nobody knows.
  useEffect(() => {
    if (chainIs === 'fresh' && getValues('chain.care') === 'unknown') setValue('chain.care', usual)
  }, [chainIs, usual, getValues, setValue])
  return (
    <Group title={t('newBike.chain')}>
      <Pick
        name="chainIs"
        label={t('newBike.chain')}
        options={(['came', 'fresh', 'none'] as const).map((one) => [one, t(`newBike.chainIs.${one}`)])}
      />
      {chainIs !== 'none' && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: 'repeat(auto-fit, minmax(min(200px, 100%), 1fr))',
            gap: 1.5,
            mt: 2,
          }}
        >
          <Line name="chain.name" label={t('newBike.chainName')} hint={t('newBike.chainNameHint')} />
          <Line name="chain.pitches" label={t('newBike.pitches')} hint={t('newBike.pitchesHint')} of="whole" />
          <Choice name="chain.care" label={t('newBike.care')} options={options} />
        </Box>
      )}
      <Stack direction="row" sx={{ gap: 1.5, mt: 1, alignItems: 'flex-start' }}>
        <Line
          name="odometer.typed"
          label={t('newBike.odometer')}
          hint={t('newBike.odometerHint')}
          of="number"
          sx={{ width: 220 }}
        />
        <Pick
          name="odometerUnit"
          label={t('newBike.unit')}
          options={[
            ['km', t('unit.km')],
            ['mi', t('unit.mi')],
          ]}
        />
      </Stack>
    </Group>
  )
}
