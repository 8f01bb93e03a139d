import { Autocomplete, TextField } from '@mui/material'
import type { FieldOf } from './Line.tsx'
import { useField } from './useField.ts'

const apart = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '')

/** Some of a list, kept in one line with commas between. */
export function Several({
  name,
  label,
  hint,
  options,
  words = (one) => one,
}: FieldOf & { readonly options: readonly string[]; readonly words?: (one: string) => string }) {
  const { value, onChange, onBlur, ref, look } = useField<string>(name)
  const { size, ...seen } = look(hint)
  return (
    <Autocomplete
      size={size}
      multiple
      options={[...options]}
      value={apart(value)}
      getOptionLabel={words}
      onChange={(_, chosen) => onChange(chosen.join(', '))}
      onBlur={onBlur}
      disableCloseOnSelect
      renderInput={(params) => <TextField {...params} inputRef={ref} label={label} {...seen} />}
    />
  )
}
