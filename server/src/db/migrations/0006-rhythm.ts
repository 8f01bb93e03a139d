import type { Migration } from './migration.ts'

const UP = `
-- A customer's fixed rhythm of looks: every so many days, or whenever the bike is in. The earlier of it and the forecast
-- applies.
ALTER TABLE customers
  ADD COLUMN rhythm_days integer CHECK (rhythm_days BETWEEN 1 AND 365),
  ADD COLUMN each_visit boolean NOT NULL DEFAULT false;

-- Whether the chain is to be looked at whenever its bike is in, as its verdict took it.
ALTER TABLE bike_state ADD COLUMN each_visit boolean NOT NULL DEFAULT false;
`

const DOWN = `
ALTER TABLE bike_state DROP COLUMN each_visit;
ALTER TABLE customers DROP COLUMN rhythm_days, DROP COLUMN each_visit;
`

export const rhythm: Migration = {
  name: '0006-rhythm',
  outdatesState: true,
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
