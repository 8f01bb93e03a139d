export { openDatabase, openForServing, type Database } from './connection.ts'
export { migrateDown, migrateUp, NewerSchemaError } from './migrate.ts'
export { loadDemo } from './seed/loadDemo.ts'
export { inShop, type Author, type Work } from './work.ts'
