import { TextField, type SxProps } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useField } from './useField.ts'

export interface FieldOf {
  /** Where the body of the write has it, such as `own.km`: what is refused there is said here. */
  readonly name: string
  readonly label: string
  readonly hint?: string | undefined
  readonly sx?: SxProps
}

export interface LineOf extends FieldOf {
  /** What keyboard a tablet opens, and whether it is a word at all. */
  readonly of?: 'text' | 'number' | 'whole' | 'teeth' | 'password' | 'pin'
  readonly unit?: string | undefined
  readonly autoFocus?: boolean
  readonly placeholder?: string
  readonly longest?: number
  readonly rows?: number
  readonly autoComplete?: string
  /** Its name for who does not see it, where its label is beside it. */
  readonly ariaLabel?: string
}

const KEYBOARD = {
  text: 'text',
  number: 'decimal',
  whole: 'numeric',
  teeth: 'text',
  password: 'text',
  pin: 'numeric',
} as const

/** One line that is typed: text, a number with its unit, teeth. It is kept as it is typed. */
export function Line({
  name,
  label,
  hint,
  of = 'text',
  unit,
  autoFocus = false,
  placeholder,
  longest,
  rows,
  autoComplete = 'off',
  ariaLabel,
  sx,
}: LineOf) {
  const { t } = useTranslation()
  const { value, onChange, onBlur, ref, look, newer } = useField<string>(name)
  const theirs =
    newer === undefined || newer === value
      ? undefined
      : newer === ''
        ? t('form.theirsNone')
        : t('form.theirs', { value: newer })
  return (
    <TextField
      name={name}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      onBlur={onBlur}
      inputRef={ref}
      label={label}
      type={of === 'password' || of === 'pin' ? 'password' : 'text'}
      autoFocus={autoFocus}
      {...look(theirs ?? hint)}
      {...(placeholder === undefined ? {} : { placeholder })}
      {...(rows === undefined ? {} : { multiline: true, minRows: rows })}
      slotProps={{
        htmlInput: { inputMode: KEYBOARD[of], autoComplete, maxLength: longest, 'aria-label': ariaLabel },
        ...(unit === undefined ? {} : { input: { endAdornment: unit } }),
      }}
      {...(sx ? { sx } : {})}
    />
  )
}
