export * from './planVisits.ts'
export { minutesByDay, type OpeningHours } from './minutesByDay.ts'
