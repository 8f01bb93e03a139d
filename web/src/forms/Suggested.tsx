import { Autocomplete, TextField } from '@mui/material'
import type { FieldOf } from './Line.tsx'
import { useField } from './useField.ts'

/** A line for which some words are offered; anything else may be typed. */
export function Suggested({ name, label, hint, options }: FieldOf & { readonly options: readonly string[] }) {
  const { value, onChange, onBlur, ref, look } = useField<string>(name)
  const { size, ...seen } = look(hint)
  return (
    <Autocomplete
      size={size}
      freeSolo
      options={options}
      inputValue={value}
      onInputChange={(_, typed) => onChange(typed)}
      onBlur={onBlur}
      renderInput={(params) => <TextField {...params} inputRef={ref} label={label} {...seen} />}
    />
  )
}
