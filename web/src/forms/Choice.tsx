import { MenuItem, TextField } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { FieldOf } from './Line.tsx'
import { useField } from './useField.ts'

/** One of a few: each with its words. */
export function Choice({
  name,
  label,
  hint,
  options,
  sx,
}: FieldOf & { readonly options: readonly (readonly [string, string])[] }) {
  const { t } = useTranslation()
  const { value, onChange, onBlur, ref, look, newer } = useField<string>(name)
  const theirs = newer === undefined || newer === value ? undefined : options.find(([key]) => key === newer)?.[1]
  return (
    <TextField
      select
      name={name}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      onBlur={onBlur}
      inputRef={ref}
      label={label}
      {...look(theirs === undefined ? hint : t('form.theirs', { value: theirs }))}
      slotProps={{ select: { displayEmpty: true } }}
      {...(sx ? { sx } : {})}
    >
      {options.map(([key, words]) => (
        <MenuItem key={key} value={key}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  )
}
