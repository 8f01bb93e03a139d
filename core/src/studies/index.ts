export { ANOVA_SOURCES, type AnovaRow, type AnovaSource, type StudyValue } from './crossedAnova.ts'
export * from './gaugeStudy.ts'
export * from './probitMark.ts'
export * from './studyOrder.ts'
