import { MenuItem, TextField } from '@mui/material'

/** One of several, with a word for none of them. */
export function ChoiceField<Option extends string>({
  label,
  none,
  value,
  options,
  said,
  onChoose,
  width,
}: {
  label: string
  none: string
  value: Option | undefined
  options: readonly Option[]
  said: (option: Option) => string
  onChoose: (option: Option | null) => void
  /** As wide as this, or as what is chosen. */
  width: number
}) {
  return (
    <TextField
      select
      size="small"
      value={value ?? ''}
      onChange={(event) => onChoose(options.find((option) => option === event.target.value) ?? null)}
      slotProps={{ input: { sx: { height: 48 } }, select: { displayEmpty: true, inputProps: { 'aria-label': label } } }}
      sx={{ minWidth: width }}
    >
      <MenuItem value="">{none}</MenuItem>
      {options.map((option) => (
        <MenuItem key={option} value={option}>
          {said(option)}
        </MenuItem>
      ))}
    </TextField>
  )
}
