import type { Migration } from './migration.ts'

const UP = `
-- The first day anything else that wears on a bike is looked at again, and with it the diary's index.
DROP INDEX bike_state_due;
ALTER TABLE bike_state DROP COLUMN due_on, ADD COLUMN wear_on date;
ALTER TABLE bike_state ADD COLUMN due_on date GENERATED ALWAYS AS
  (LEAST(check_on, care_on, wear_on, CASE WHEN word = 'change' THEN trouble_on END)) STORED;
CREATE INDEX bike_state_due ON bike_state (shop_id, due_on, bike_id) WHERE due_on IS NOT NULL;
`

const DOWN = `
ALTER TABLE bike_state DROP COLUMN due_on, DROP COLUMN wear_on;
ALTER TABLE bike_state ADD COLUMN due_on date GENERATED ALWAYS AS
  (LEAST(check_on, care_on, CASE WHEN word = 'change' THEN trouble_on END)) STORED;
CREATE INDEX bike_state_due ON bike_state (shop_id, due_on, bike_id) WHERE due_on IS NOT NULL;
`

export const otherWearDue: Migration = {
  name: '0019-other-wear-due',
  outdatesState: true,
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
