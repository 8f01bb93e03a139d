export * from './lives.ts'
