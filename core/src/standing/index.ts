export * from './standingOf.ts'
