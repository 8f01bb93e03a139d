export * from './template.ts'
