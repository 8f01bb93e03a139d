import { TimeField } from '@mui/x-date-pickers/TimeField'
import dayjs from 'dayjs'
import { timePattern } from '../messages/pickerFormats.ts'
import type { FieldOf } from './Line.tsx'
import { PickersIn } from './PickersIn.tsx'
import { useField } from './useField.ts'

/** A time of day, typed in digits: kept as HH:mm, and '' while it is none. */
export function TimeLine({ name, label, hint, sx }: FieldOf) {
  const { value, onChange, onBlur, ref, look } = useField<string>(name)
  return (
    <PickersIn>
      <TimeField
        label={label}
        format={timePattern()}
        value={value === '' ? null : dayjs(`2024-01-01T${value}`)}
        onChange={(at) => onChange(at?.isValid() === true ? at.format('HH:mm') : '')}
        onBlur={onBlur}
        inputRef={ref}
        {...look(hint)}
        {...(sx ? { sx } : {})}
      />
    </PickersIn>
  )
}
