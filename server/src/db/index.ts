export { grantServing, QUEUE_SCHEMA, SERVING_ROLE } from './roles.ts'
export { inShop, type Author, type Work } from './work.ts'
export { migrateDown, migrateUp, NewerSchemaError } from './migrate.ts'
export { openDatabase, openForServing, type Database } from './connection.ts'
