export * from './mendOptions.ts'
export * from './addingBack.ts'
export * from './mendSteps.ts'
export * from './carryList.ts'
