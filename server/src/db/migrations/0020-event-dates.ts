import type { Migration } from './migration.ts'

const UP = `
-- Days a bike is wanted for: its chain is treated, and ridden in, before.
CREATE TABLE event_dates (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  bike_id uuid NOT NULL,
  day date NOT NULL,
  name text NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  dropped_at timestamptz,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX event_dates_ahead ON event_dates (shop_id, day, bike_id) WHERE dropped_at IS NULL;
CREATE INDEX event_dates_of ON event_dates (shop_id, bike_id, day) WHERE dropped_at IS NULL;
ALTER TABLE event_dates ENABLE ROW LEVEL SECURITY;
ALTER TABLE event_dates FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON event_dates USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`

export const eventDates: Migration = {
  name: '0020-event-dates',
  up: (run) => run(UP),
  down: (run) => run('DROP TABLE event_dates;'),
}
