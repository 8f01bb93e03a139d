import type { Migration } from '../migrate.ts'
import { foundation } from './0001-foundation.ts'

/** Every migration, oldest first. A landed migration is never changed; a new one follows it. */
export const migrations: readonly Migration[] = [foundation]
