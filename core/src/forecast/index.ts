export * from './crossing.ts'
export * from './fitWear.ts'
export * from './wearModel.ts'
