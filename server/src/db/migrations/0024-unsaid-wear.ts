import type { Migration } from './migration.ts'

/** What was learned of kilometres nobody said the surface of, beside the lives; null where it was not asked yet. */
export const unsaidWear: Migration = {
  name: '0024-unsaid-wear',
  up: (run) => run('ALTER TABLE prior_versions ADD COLUMN unsaid jsonb'),
  down: (run) => run('ALTER TABLE prior_versions DROP COLUMN unsaid'),
}
