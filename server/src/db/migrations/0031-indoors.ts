import type { Migration } from './migration.ts'

const UP = `
-- On a trainer or on rollers: it wears less, and there is no dirt.
ALTER TABLE rides DROP CONSTRAINT rides_surface_check;
ALTER TABLE rides ADD CONSTRAINT rides_surface_check CHECK (surface IN ('indoor', 'dry', 'damp', 'wet', 'gritty'));
`

const DOWN = `
UPDATE rides SET surface = 'dry' WHERE surface = 'indoor';
ALTER TABLE rides DROP CONSTRAINT rides_surface_check;
ALTER TABLE rides ADD CONSTRAINT rides_surface_check CHECK (surface IN ('dry', 'damp', 'wet', 'gritty'));
`

export const indoors: Migration = {
  name: '0031-indoors',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
