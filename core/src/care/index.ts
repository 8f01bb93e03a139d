export * from './careDue.ts'
export * from './careExplained.ts'
export * from './careSteps.ts'
export * from './eventCare.ts'
