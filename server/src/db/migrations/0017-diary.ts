import type { Migration } from './migration.ts'

const UP = `
-- A visit may be booked ahead, take some minutes, and be called off.
ALTER TABLE visits
  DROP CONSTRAINT visits_state_check,
  ADD CHECK (state IN ('waiting', 'on-stand', 'done', 'called-off')),
  ADD COLUMN minutes integer CHECK (minutes BETWEEN 1 AND 1440),
  ADD COLUMN booked_at timestamptz;

-- The first day something is due on a bike: the diary's index.
ALTER TABLE bike_state ADD COLUMN due_on date GENERATED ALWAYS AS
  (LEAST(check_on, care_on, CASE WHEN word = 'change' THEN trouble_on END)) STORED;
CREATE INDEX bike_state_due ON bike_state (shop_id, due_on, bike_id) WHERE due_on IS NOT NULL;

-- Days the shop is closed beside its weekdays.
CREATE TABLE closed_days (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  day date NOT NULL,
  reason text NOT NULL,
  PRIMARY KEY (shop_id, day)
);

-- Addresses a calendar program asks by. Only a digest is kept.
CREATE TABLE calendar_feeds (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  digest bytea NOT NULL,
  name text NOT NULL,
  made_at timestamptz NOT NULL,
  person_id uuid NOT NULL,
  revoked_at timestamptz,
  PRIMARY KEY (shop_id, id),
  UNIQUE (shop_id, digest),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);

ALTER TABLE closed_days ENABLE ROW LEVEL SECURITY;
ALTER TABLE closed_days FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON closed_days USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
ALTER TABLE calendar_feeds ENABLE ROW LEVEL SECURITY;
ALTER TABLE calendar_feeds FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON calendar_feeds USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`

const DOWN = `
DROP TABLE calendar_feeds;
DROP TABLE closed_days;
ALTER TABLE bike_state DROP COLUMN due_on;
ALTER TABLE visits DROP COLUMN booked_at, DROP COLUMN minutes, DROP CONSTRAINT visits_state_check,
  ADD CHECK (state IN ('waiting', 'on-stand', 'done'));
`

export const diary: Migration = {
  name: '0017-diary',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
