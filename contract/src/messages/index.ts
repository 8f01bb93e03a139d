export { problems, type ProblemCode } from './problems.ts'
export { care, riderGears, word } from './common.ts'
export { REMINDER_LANGUAGES, reminders, type ReminderLanguage } from './reminders.ts'
export { sheet } from './sheet.ts'
