import type { Migration } from './migration.ts'

const UP = `
-- What happened to a chain between two treatments, and the treatments themselves: of the chain, wherever it hangs.
CREATE TABLE care_events (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  chain_id uuid NOT NULL,
  bike_id uuid,
  kind text NOT NULL CHECK (kind IN ('treated', 'wash', 'squeak')),
  care text CHECK (care IN ('immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil')),
  cleaning text CHECK (cleaning IN ('wipe', 'rinse', 'on-bike', 'soak', 'boil', 'strip')),
  at_home boolean NOT NULL DEFAULT false,
  note text,
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  supersedes_id uuid,
  reason text,
  deleted boolean NOT NULL DEFAULT false,
  PRIMARY KEY (shop_id, id),
  UNIQUE (shop_id, supersedes_id),
  CHECK ((kind = 'treated') = (care IS NOT NULL)),
  CHECK ((kind = 'treated') = (cleaning IS NOT NULL)),
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES care_events (shop_id, id)
);
CREATE INDEX care_events_of_chain ON care_events (shop_id, chain_id, occurred_at DESC);
ALTER TABLE care_events ENABLE ROW LEVEL SECURITY;
ALTER TABLE care_events FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON care_events USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());

-- A bike's own interval, where the shop's does not suit it.
ALTER TABLE bikes
  ADD COLUMN care_km double precision CHECK (care_km > 0),
  ADD COLUMN care_days integer CHECK (care_days > 0),
  ADD CHECK ((care_km IS NULL) = (care_days IS NULL));

-- Who treats a customer's chains between visits, and the weekday that suits them, 1 Monday to 7 Sunday.
ALTER TABLE customers
  ADD COLUMN care_at text CHECK (care_at IN ('home', 'workshop')),
  ADD COLUMN good_weekday integer CHECK (good_weekday BETWEEN 1 AND 7);

-- When the chain on a bike is treated next, as of the last fact.
ALTER TABLE bike_state ADD COLUMN care jsonb, ADD COLUMN care_on date;
CREATE INDEX bike_state_care ON bike_state (shop_id, care_on) WHERE care_on IS NOT NULL;
`

const DOWN = `
ALTER TABLE bike_state DROP COLUMN care, DROP COLUMN care_on;
ALTER TABLE customers DROP COLUMN care_at, DROP COLUMN good_weekday;
ALTER TABLE bikes DROP COLUMN care_km, DROP COLUMN care_days;
DROP TABLE care_events;
`

export const care: Migration = {
  name: '0015-care',
  outdatesState: true,
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
