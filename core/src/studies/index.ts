export type { AnovaRow, AnovaSource, StudyValue } from './crossedAnova.ts'
export * from './gaugeStudy.ts'
export * from './probitMark.ts'
export * from './studyOrder.ts'
