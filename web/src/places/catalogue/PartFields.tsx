import { Autocomplete, Box, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { fieldsOf, type PartField, type PartKind } from '@pelrin/core'
import type { DriveSystem, PartCells } from '@pelrin/contract'

const HINTED: readonly string[] = ['speeds', 'sprockets', 'teeth', 'pulleys', 'reuse', 'belongsTo', 'innerMm']
const apart = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '')

/** What is to be said of a part of one kind, field by field, in the words the core reads. */
export function PartFields({
  kind,
  cells,
  wrong,
  beside = {},
  systems,
  withStock,
  onChange,
}: {
  kind: PartKind
  cells: PartCells
  /** What is wrong, by field, as a sentence. */
  wrong: Readonly<Record<string, string>>
  /** What somebody else has made of a field meanwhile. */
  beside?: Readonly<Record<string, string>>
  systems: readonly DriveSystem[]
  /** A new part may say how many are there; later its stock changes by what comes and goes. */
  withStock: boolean
  onChange: (field: string, value: string) => void
}) {
  const { t } = useTranslation()
  const fields = fieldsOf(kind).filter(({ key }) => withStock || key !== 'stock')
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'repeat(2, minmax(0, 1fr))', lg: 'repeat(3, minmax(0, 1fr))' },
        gap: 1.75,
        alignItems: 'start',
      }}
    >
      {fields.map((field) => (
        <Field
          key={field.key}
          field={field}
          label={t(`catalogue.field.${field.key}`)}
          value={cells[field.key] ?? ''}
          systems={systems}
          error={wrong[field.key]}
          help={
            wrong[field.key] ??
            beside[field.key] ??
            (HINTED.includes(field.key) ? t(`catalogue.hint.${field.key}`) : undefined)
          }
          onChange={(value) => onChange(field.key, value)}
        />
      ))}
    </Box>
  )
}

function Field({
  field: { input },
  label,
  value,
  systems,
  error,
  help,
  onChange,
}: {
  field: PartField
  label: string
  value: string
  systems: readonly DriveSystem[]
  error: string | undefined
  help: string | undefined
  onChange: (value: string) => void
}) {
  const { t } = useTranslation()
  const common = { label, error: error !== undefined, helperText: help, size: 'small' as const, fullWidth: true }
  switch (input.kind) {
    case 'yes-no':
      return (
        <FormControlLabel
          control={<Checkbox checked={value === 'yes'} onChange={(_, on) => onChange(on ? 'yes' : 'no')} />}
          label={label}
          sx={{ minHeight: 40 }}
        />
      )
    case 'choice':
      return (
        <TextField
          select
          {...common}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          {(input.mayBeEmpty ? ['', ...input.choices] : input.choices).map((choice) => (
            <MenuItem key={choice} value={choice} sx={{ minHeight: 48 }}>
              {choice === '' ? t('catalogue.notKnown') : t(`catalogue.choice.${choice}`)}
            </MenuItem>
          ))}
        </TextField>
      )
    case 'choices':
    case 'systems': {
      const options = input.kind === 'choices' ? [...input.choices] : systems.map(({ name }) => name)
      return (
        <Autocomplete
          multiple
          size="small"
          options={options}
          value={apart(value)}
          getOptionLabel={(one) => (input.kind === 'choices' ? t(`catalogue.choice.${one}`) : one)}
          onChange={(_, chosen) => onChange(chosen.join(', '))}
          disableCloseOnSelect
          renderInput={(params) => (
            <TextField {...params} label={label} error={error !== undefined} helperText={help} />
          )}
        />
      )
    }
    default:
      return (
        <TextField
          {...common}
          value={value}
          multiline={input.kind === 'long-text'}
          onChange={(event) => onChange(event.target.value)}
          slotProps={{
            inputLabel: { shrink: true },
            htmlInput: input.kind === 'number' ? { inputMode: 'decimal' } : {},
          }}
        />
      )
  }
}
