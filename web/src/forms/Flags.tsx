import { Box, Checkbox, FormControlLabel, FormHelperText, Stack, Typography } from '@mui/material'
import { useField } from './useField.ts'

/** Any of a few. */
export function Flags({
  name,
  label,
  options,
}: {
  name: string
  label: string
  options: readonly (readonly [string, string])[]
}) {
  const { value, onChange, wrong } = useField<readonly string[]>(name)
  return (
    <Box role="group" aria-label={label}>
      <Typography variant="body2" color="textSecondary">
        {label}
      </Typography>
      <Stack direction="row" sx={{ flexWrap: 'wrap', columnGap: 2 }}>
        {options.map(([key, words]) => (
          <FormControlLabel
            key={key}
            control={
              <Checkbox
                checked={value.includes(key)}
                onChange={(_, on) => onChange(on ? [...value, key] : value.filter((one) => one !== key))}
              />
            }
            label={words}
          />
        ))}
      </Stack>
      {wrong !== undefined && <FormHelperText error>{wrong}</FormHelperText>}
    </Box>
  )
}
