export * from './damage.ts'
export * from './sprockets.ts'
export * from './waiting.ts'
export * from './wearCosts.ts'
