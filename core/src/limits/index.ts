export { chainVerdict } from './chainVerdict.ts'
export * from './disagreement.ts'
export * from './houseRules.ts'
export * from './verdictTypes.ts'
