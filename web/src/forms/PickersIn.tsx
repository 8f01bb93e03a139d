import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider'
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs'
import 'dayjs/locale/en-gb'
import type { ReactNode } from 'react'
import { calendarLocale } from '../messages/pickerFormats.ts'

/** Days and times are typed in the order the shop writes them in. */
export const PickersIn = ({ children }: { children: ReactNode }) => (
  <LocalizationProvider dateAdapter={AdapterDayjs} adapterLocale={calendarLocale()}>
    {children}
  </LocalizationProvider>
)
