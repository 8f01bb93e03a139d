export * from './planVisits.ts'
export { minutesAfter, minutesByDay, type OpeningHours } from './minutesByDay.ts'
