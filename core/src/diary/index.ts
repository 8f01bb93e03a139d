export * from './planVisits.ts'
