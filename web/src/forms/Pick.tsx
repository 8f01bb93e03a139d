import { ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useField } from './useField.ts'

/** One of a few that are all seen at once. */
export function Pick({
  name,
  label,
  options,
  none,
}: {
  name: string
  label: string
  options: readonly (readonly [string, string])[]
  /** What it is when the one that is chosen is pressed again; left out: one is always chosen. */
  none?: string
}) {
  const { value, onChange } = useField<string>(name)
  const choose = (chosen: string | null): void => {
    const next = chosen ?? none
    if (next !== undefined) onChange(next)
  }
  return (
    <ToggleButtonGroup
      exclusive
      value={value}
      aria-label={label}
      onChange={(_, chosen: string | null) => choose(chosen)}
    >
      {options.map(([key, words]) => (
        <ToggleButton key={key} value={key} sx={{ px: 2, height: 56 }}>
          {words}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}
