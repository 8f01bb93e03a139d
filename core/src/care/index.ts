export * from './careDue.ts'
export * from './careSteps.ts'
export * from './eventCare.ts'
