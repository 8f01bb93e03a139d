import type { Migration } from './migration.ts'

const UP = `
-- When a visit was last changed, for calendars that have it.
ALTER TABLE visits ADD COLUMN changed_at timestamptz NOT NULL DEFAULT now();
CREATE FUNCTION pelrin_visit_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  NEW.changed_at := now();
  RETURN NEW;
END $$;
CREATE TRIGGER visits_changed BEFORE UPDATE ON visits FOR EACH ROW EXECUTE FUNCTION pelrin_visit_changed();
`

const DOWN = `
DROP TRIGGER visits_changed ON visits;
DROP FUNCTION pelrin_visit_changed();
ALTER TABLE visits DROP COLUMN changed_at;
`

export const visitsChanged: Migration = {
  name: '0027-visits-changed',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
