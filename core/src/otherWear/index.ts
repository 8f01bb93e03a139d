export * from './items.ts'
export * from './rotorWear.ts'
export * from './parseThickness.ts'
