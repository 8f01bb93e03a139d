export { EXHAUSTIVE_CHAINS, planPot, type PlannedPot } from './planPot.ts'
export * from './potTypes.ts'
export * from './temperature.ts'
export * from './potRequest.ts'
