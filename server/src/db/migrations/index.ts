import type { Migration } from './migration.ts'
import { foundation } from './0001-foundation.ts'

/** Every migration, oldest first. A landed migration is never changed; a new one follows it. */
export const migrations: readonly Migration[] = [foundation]
