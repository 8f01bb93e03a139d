import type { SxProps } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { SURFACES } from '@pelrin/core'
import { Choice } from '../../forms/Choice.tsx'

/** What a ride was ridden on, in a form; '' where nobody said. */
export function SurfaceChoice({ hint, sx }: { hint?: string | undefined; sx: SxProps }) {
  const { t } = useTranslation()
  const options = SURFACES.map((one) => [one, t(`distanceOf.surfaceOf.${one}`)] as const)
  return (
    <Choice
      name="surface"
      label={t('distanceOf.surface')}
      options={[['', t('distanceOf.surfaceOf.unknown')], ...options]}
      hint={hint}
      sx={sx}
    />
  )
}
