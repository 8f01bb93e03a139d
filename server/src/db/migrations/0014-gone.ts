import type { Migration } from './migration.ts'

/** A bike that was sold or left for good keeps its record and is in for nothing any more. */
export const gone: Migration = {
  name: '0014-gone',
  up: (run) => run('ALTER TABLE bikes ADD COLUMN gone_on date;'),
  down: (run) => run('ALTER TABLE bikes DROP COLUMN gone_on;'),
}
