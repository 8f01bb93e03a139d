export { chainVerdict } from './chainVerdict.ts'
export * from './houseRules.ts'
export * from './verdictTypes.ts'
