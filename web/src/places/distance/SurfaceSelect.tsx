import { MenuItem, TextField, type TextFieldProps } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { SURFACES, type Surface } from '@pelrin/core'

/** Chooses what a ride was ridden on; null where nobody said. */
export function SurfaceSelect({
  value,
  onChange,
  ...field
}: Omit<TextFieldProps, 'value' | 'onChange' | 'select' | 'slotProps'> & {
  value: Surface | null
  onChange: (surface: Surface | null) => void
}) {
  const { t } = useTranslation()
  return (
    <TextField
      label={t('distanceOf.surface')}
      {...field}
      select
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value === '' ? null : (event.target.value as Surface))}
      slotProps={{ select: { displayEmpty: true } }}
    >
      <MenuItem value="">{t('distanceOf.surfaceOf.unknown')}</MenuItem>
      {SURFACES.map((one) => (
        <MenuItem key={one} value={one}>
          {t(`distanceOf.surfaceOf.${one}`)}
        </MenuItem>
      ))}
    </TextField>
  )
}
