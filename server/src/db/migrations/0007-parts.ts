import type { Migration } from './migration.ts'

const TABLES = ['drive_systems', 'parts'] as const

const UP = `
-- Drivetrain parts made for each other.
CREATE TABLE drive_systems (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  name text NOT NULL,
  flat_top boolean NOT NULL DEFAULT false,
  large_roller boolean NOT NULL DEFAULT false,
  PRIMARY KEY (shop_id, id),
  UNIQUE (shop_id, name)
);

-- The catalogue: what kind a part is decides what its facts are.
CREATE TABLE parts (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  kind text NOT NULL CHECK (kind IN ('chain', 'link', 'pin', 'clip')),
  maker text NOT NULL,
  name text NOT NULL,
  facts jsonb NOT NULL,
  price integer CHECK (price >= 0),
  stock integer NOT NULL DEFAULT 0 CHECK (stock >= 0),
  reorder_point integer NOT NULL DEFAULT 0 CHECK (reorder_point >= 0),
  version integer NOT NULL DEFAULT 1,
  removed_at timestamptz,
  PRIMARY KEY (shop_id, id)
);
CREATE UNIQUE INDEX parts_one_of_a_name ON parts (shop_id, kind, maker, name) WHERE removed_at IS NULL;

ALTER TABLE drives
  ADD COLUMN system_id uuid,
  ADD COLUMN level text,
  ADD COLUMN ring_width text CHECK (ring_width IN ('3/32', '1/8')),
  ADD COLUMN chainstay_mm double precision,
  ADD COLUMN suspension text NOT NULL DEFAULT 'rigid' CHECK (suspension IN ('rigid', 'hardtail', 'full')),
  ADD COLUMN growth_mm double precision,
  ADD COLUMN stated_add integer,
  ADD COLUMN pulleys integer[],
  ADD COLUMN pulleys_counted boolean NOT NULL DEFAULT false,
  ADD COLUMN capacity_teeth integer,
  ADD COLUMN largest_sprocket_teeth integer,
  ADD COLUMN axle_from_mm double precision,
  ADD COLUMN axle_to_mm double precision,
  ADD COLUMN taken_off boolean NOT NULL DEFAULT false,
  ADD FOREIGN KEY (shop_id, system_id) REFERENCES drive_systems (shop_id, id);
`

const SCOPED = TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
).join('\n')

const DOWN = `
ALTER TABLE drives DROP COLUMN system_id, DROP COLUMN level, DROP COLUMN ring_width, DROP COLUMN chainstay_mm,
  DROP COLUMN suspension, DROP COLUMN growth_mm, DROP COLUMN stated_add, DROP COLUMN pulleys,
  DROP COLUMN pulleys_counted, DROP COLUMN capacity_teeth, DROP COLUMN largest_sprocket_teeth,
  DROP COLUMN axle_from_mm, DROP COLUMN axle_to_mm, DROP COLUMN taken_off;
DROP TABLE parts, drive_systems;
`

export const parts: Migration = {
  name: '0007-parts',
  up: (run) => run(UP + SCOPED),
  down: (run) => run(DOWN),
}
