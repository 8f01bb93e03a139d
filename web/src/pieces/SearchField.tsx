import { InputAdornment, TextField } from '@mui/material'
import SearchIcon from '@mui/icons-material/Search'

/** What a list is looked through by; Escape leaves it. */
export function SearchField({
  label,
  width,
  text,
  onText,
}: {
  label: string
  width: number
  text: string
  onText: (text: string) => void
}) {
  return (
    <TextField
      size="small"
      value={text}
      onChange={(event) => onText(event.target.value)}
      placeholder={label}
      slotProps={{
        htmlInput: { 'aria-label': label },
        input: {
          sx: { width, height: 48 },
          startAdornment: (
            <InputAdornment position="start">
              <SearchIcon fontSize="small" />
            </InputAdornment>
          ),
        },
      }}
      onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.querySelector('input')?.blur()}
    />
  )
}
