export * from './jobPlan.ts'
export * from './steps.ts'
export * from './fittingSteps.ts'
export * from './jobState.ts'
