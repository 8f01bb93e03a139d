import { DateTimeField } from '@mui/x-date-pickers/DateTimeField'
import dayjs from 'dayjs'
import { dayPattern, timePattern } from '../messages/pickerFormats.ts'
import type { FieldOf } from './Line.tsx'
import { PickersIn } from './PickersIn.tsx'
import { useField } from './useField.ts'

/** A day with a time of it, typed in digits: kept as YYYY-MM-DDTHH:mm, and '' while it is none. */
export function MomentLine({ name, label, hint, sx }: FieldOf) {
  const { value, onChange, onBlur, ref, look } = useField<string>(name)
  return (
    <PickersIn>
      <DateTimeField
        label={label}
        format={`${dayPattern()} ${timePattern()}`}
        value={value === '' ? null : dayjs(value)}
        onChange={(at) => onChange(at?.isValid() === true ? at.format('YYYY-MM-DDTHH:mm') : '')}
        onBlur={onBlur}
        inputRef={ref}
        {...look(hint)}
        {...(sx ? { sx } : {})}
      />
    </PickersIn>
  )
}
