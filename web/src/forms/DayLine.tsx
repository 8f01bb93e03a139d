import { DatePicker } from '@mui/x-date-pickers/DatePicker'
import dayjs from 'dayjs'
import { dayPattern } from '../messages/pickerFormats.ts'
import type { FieldOf } from './Line.tsx'
import { PickersIn } from './PickersIn.tsx'
import { useField } from './useField.ts'

/** A day: typed in digits or picked. What is typed is kept as YYYY-MM-DD, and '' while it is no whole day. */
export function DayLine({
  name,
  label,
  hint,
  from,
  until,
  sx,
}: FieldOf & { readonly from?: string; readonly until?: string }) {
  const { value, onChange, onBlur, ref, look } = useField<string>(name)
  return (
    <PickersIn>
      <DatePicker
        label={label}
        format={dayPattern()}
        value={value === '' ? null : dayjs(value)}
        onChange={(on) => onChange(on?.isValid() === true ? on.format('YYYY-MM-DD') : '')}
        {...(from === undefined ? {} : { minDate: dayjs(from) })}
        {...(until === undefined ? {} : { maxDate: dayjs(until) })}
        inputRef={ref}
        slotProps={{
          textField: { ...look(hint), onBlur, ...(sx ? { sx } : {}) },
        }}
      />
    </PickersIn>
  )
}
