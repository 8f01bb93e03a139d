import { Box } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Flag } from '../../forms/Flag.tsx'
import { Line } from '../../forms/Line.tsx'
import { Pick } from '../../forms/Pick.tsx'
import { Group } from './Group.tsx'
import type { TypedBike } from './newBike.ts'

/** What drives it. */
export function ItsDrive({ type }: { type: TypedBike['drive']['type'] }) {
  const { t } = useTranslation()
  return (
    <Group title={t('newBike.drive')}>
      <Pick
        name="drive.type"
        label={t('newBike.drive')}
        options={(['derailleur', 'hub-gear', 'single-speed'] as const).map((one) => [one, t(`driveKind.${one}`)])}
      />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(min(200px, 100%), 1fr))',
          gap: 1.5,
          mt: 2,
        }}
      >
        {type !== 'single-speed' && (
          <Line
            name="drive.speeds"
            label={t(type === 'hub-gear' ? 'newBike.speedsHub' : 'newBike.speeds')}
            of="whole"
          />
        )}
        <Line name="drive.fronts" label={t('newBike.fronts')} hint={t('newBike.frontsHint')} of="teeth" />
        <Line
          name="drive.sprockets"
          label={t('newBike.sprockets')}
          hint={type === 'derailleur' ? t('newBike.sprocketsHint') : undefined}
          of="teeth"
        />
      </Box>
      <Flag name="drive.motor" label={t('newBike.motor')} />
    </Group>
  )
}
