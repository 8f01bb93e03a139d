export * from './mendOptions.ts'
export * from './carryList.ts'
