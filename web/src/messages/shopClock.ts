import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'
import { formats } from './shopFormats.ts'

dayjs.extend(utc)
dayjs.extend(timezone)

/** A moment on the shop's own clock, whatever zone the tablet thinks it is in. */
export const inZone = (moment: string | number | Date): dayjs.Dayjs => dayjs(moment).tz(formats().timeZone)

/** A day and a time of it as they are written in the shop, as a moment. */
export const atInZone = (day: string, time: string): dayjs.Dayjs => dayjs.tz(`${day}T${time}`, formats().timeZone)

/** Today in the shop, YYYY-MM-DD. */
export const todayInZone = (): string => inZone(Date.now()).format('YYYY-MM-DD')

/** Midnight before a moment, by the shop's clock, ms. */
export const midnightBefore = (moment: number): number => inZone(moment).startOf('day').valueOf()
