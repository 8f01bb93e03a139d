export * from './template.ts'
export * from './reach.ts'
