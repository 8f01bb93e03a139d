import type { Migration } from './migration.ts'

const due = (more: string): string => `
DROP INDEX bike_state_due;
ALTER TABLE bike_state DROP COLUMN due_on;${more}
`
const INDEX = `CREATE INDEX bike_state_due ON bike_state (shop_id, due_on, bike_id) WHERE due_on IS NOT NULL;`

const UP = `
-- Washed every so many days; null: as the house has it, 0: when it is dirty.
ALTER TABLE bikes ADD COLUMN wash_days integer CHECK (wash_days BETWEEN 0 AND 365);
${due(`
ALTER TABLE bike_state
  ADD COLUMN wash_on date,
  -- The day whoever rides it treats it at home: nobody is booked in for that.
  ADD COLUMN home_on date;
ALTER TABLE bike_state ADD COLUMN due_on date GENERATED ALWAYS AS
  (LEAST(check_on, measure_from, care_on, wash_on, wear_on, change_on)) STORED;`)}
${INDEX}
CREATE INDEX bike_state_home ON bike_state (shop_id, home_on, bike_id) WHERE home_on IS NOT NULL;
-- What a message asks for: that they come, or that they care for it themselves.
ALTER TABLE messages ADD COLUMN purpose text NOT NULL DEFAULT 'visit' CHECK (purpose IN ('visit', 'home'));
DROP INDEX messages_one_a_visit;
CREATE UNIQUE INDEX messages_one_a_visit ON messages (shop_id, customer_id, visit_day, purpose) WHERE state <> 'called-off';
`

const DOWN = `
DROP INDEX messages_one_a_visit;
-- Every shop's, which the policies would hide.
ALTER TABLE messages NO FORCE ROW LEVEL SECURITY;
DELETE FROM messages WHERE purpose = 'home';
ALTER TABLE messages FORCE ROW LEVEL SECURITY;
ALTER TABLE messages DROP COLUMN purpose;
CREATE UNIQUE INDEX messages_one_a_visit ON messages (shop_id, customer_id, visit_day) WHERE state <> 'called-off';
DROP INDEX bike_state_home;
${due(`
ALTER TABLE bike_state DROP COLUMN wash_on, DROP COLUMN home_on;
ALTER TABLE bike_state ADD COLUMN due_on date GENERATED ALWAYS AS
  (LEAST(check_on, measure_from, care_on, wear_on, change_on)) STORED;`)}
${INDEX}
ALTER TABLE bikes DROP COLUMN wash_days;
`

export const washes: Migration = {
  name: '0036-washes',
  outdatesState: true,
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
