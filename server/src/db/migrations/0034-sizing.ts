import type { Migration } from './migration.ts'

const HANGS = `CHECK (%s IN ('hangs', 'right', 'strained'))`

const UP = `
-- The count found on the bike itself, and how: it comes before what is worked out.
ALTER TABLE drives
  ADD COLUMN own_pitches integer CHECK (own_pitches BETWEEN 20 AND 400),
  ADD COLUMN own_pitches_by text CHECK (own_pitches_by IN ('wrapped', 'threaded', 'smallest'));
-- How a chain hung before it came off, on the two smallest and the two largest: whether its count is to be matched follows from it.
ALTER TABLE chains
  ADD COLUMN hung_small text ${HANGS.replace('%s', 'hung_small')},
  ADD COLUMN hung_large text ${HANGS.replace('%s', 'hung_large')};
`

const DOWN = `
ALTER TABLE chains DROP COLUMN hung_small, DROP COLUMN hung_large;
ALTER TABLE drives DROP COLUMN own_pitches, DROP COLUMN own_pitches_by;
`

export const sizing: Migration = { name: '0034-sizing', up: (run) => run(UP), down: (run) => run(DOWN) }
