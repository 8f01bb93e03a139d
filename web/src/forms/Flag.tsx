import { Checkbox, FormControlLabel } from '@mui/material'
import { useField } from './useField.ts'

/** Yes or no; kept as such, or in the two words given. */
export function Flag({
  name,
  label,
  on = true,
  off = false,
}: {
  name: string
  label: string
  on?: boolean | string
  off?: boolean | string
}) {
  const { value, onChange, onBlur, ref } = useField<boolean | string>(name)
  return (
    <FormControlLabel
      control={
        <Checkbox
          checked={value === on}
          onChange={(_, checked) => onChange(checked ? on : off)}
          onBlur={onBlur}
          slotProps={{ input: { ref } }}
        />
      }
      label={label}
    />
  )
}
