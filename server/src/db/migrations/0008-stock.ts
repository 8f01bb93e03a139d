import type { Migration } from './migration.ts'

const TABLES = [
  'catalogue_versions',
  'stock_movements',
  'kept_parts',
  'kept_part_lines',
  'supplier_offers',
  'orders',
  'order_lines',
  'joints',
  'joint_events',
] as const

const ROW = `
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  PRIMARY KEY (shop_id, id)`

const PERSON = `FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)`
const PART = `FOREIGN KEY (shop_id, part_id) REFERENCES parts (shop_id, id)`

const UP = `
ALTER TABLE parts DROP CONSTRAINT parts_kind_check;
ALTER TABLE parts ADD CONSTRAINT parts_kind_check
  CHECK (kind IN ('chain', 'link', 'pin', 'clip', 'cassette', 'ring', 'derailleur'));
CREATE INDEX parts_in_order ON parts (shop_id, maker, name, id) WHERE removed_at IS NULL;

-- Counts up with every change of the catalogue or its stock, so that a copy of it knows whether it is still good.
CREATE TABLE catalogue_versions (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() PRIMARY KEY REFERENCES shops (id),
  version integer NOT NULL
);

-- A tandem's second chain, over two rings at the cranks; where the eccentric lets its axle stand.
ALTER TABLE drives
  ADD COLUMN timing_teeth integer[],
  ADD COLUMN timing_from_mm double precision,
  ADD COLUMN timing_to_mm double precision;

-- Which part of the catalogue a chain is, where that is known.
ALTER TABLE chains ADD COLUMN part_id uuid, ADD FOREIGN KEY (shop_id, part_id) REFERENCES parts (shop_id, id);

-- Parts chosen for a bike: held back from stock until they are used or let go. One open list a bike.
CREATE TABLE kept_parts (${ROW},
  bike_id uuid NOT NULL,
  state text NOT NULL CHECK (state IN ('kept', 'used', 'dropped')),
  pitches integer,
  kept_at timestamptz NOT NULL,
  settled_at timestamptz,
  person_id uuid NOT NULL,
  version integer NOT NULL DEFAULT 1,
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  ${PERSON}
);
CREATE UNIQUE INDEX kept_parts_one_a_bike ON kept_parts (shop_id, bike_id) WHERE state = 'kept';

CREATE TABLE kept_part_lines (${ROW},
  kept_id uuid NOT NULL,
  part_id uuid NOT NULL,
  quantity integer NOT NULL CHECK (quantity > 0),
  -- In the box of another line: neither paid for nor taken from stock.
  included boolean NOT NULL DEFAULT false,
  kept_at timestamptz NOT NULL,
  FOREIGN KEY (shop_id, kept_id) REFERENCES kept_parts (shop_id, id),
  ${PART}
);
CREATE INDEX kept_part_lines_of_list ON kept_part_lines (shop_id, kept_id);
CREATE INDEX kept_part_lines_of_part ON kept_part_lines (shop_id, part_id, kept_at);

-- What a supplier said last of a part.
CREATE TABLE supplier_offers (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  part_id uuid NOT NULL,
  sku text NOT NULL,
  price integer NOT NULL CHECK (price >= 0),
  stock integer NOT NULL CHECK (stock >= 0),
  days integer NOT NULL CHECK (days >= 0),
  asked_at timestamptz NOT NULL,
  PRIMARY KEY (shop_id, part_id),
  ${PART}
);

-- An order is written down before it is sent, under the reference it is sent with: whatever happens on the way, it can be
-- asked for by it, and is never sent as another.
CREATE TABLE orders (${ROW},
  state text NOT NULL CHECK (state IN ('sending', 'unsure', 'refused', 'placed', 'received', 'cancelled')),
  number text,
  expected_on date,
  problem text,
  tries integer NOT NULL DEFAULT 0,
  sent_at timestamptz NOT NULL,
  settled_at timestamptz,
  person_id uuid NOT NULL,
  version integer NOT NULL DEFAULT 1,
  ${PERSON}
);
CREATE INDEX orders_latest ON orders (shop_id, sent_at DESC, id DESC);

CREATE TABLE order_lines (${ROW},
  order_id uuid NOT NULL,
  part_id uuid NOT NULL,
  sku text NOT NULL,
  quantity integer NOT NULL CHECK (quantity > 0),
  price integer NOT NULL CHECK (price >= 0),
  -- What the supplier says instead, where it refused this line.
  price_now integer,
  stock_now integer,
  received integer NOT NULL DEFAULT 0 CHECK (received >= 0),
  FOREIGN KEY (shop_id, order_id) REFERENCES orders (shop_id, id),
  ${PART}
);
CREATE INDEX order_lines_of_order ON order_lines (shop_id, order_id);
CREATE INDEX order_lines_of_part ON order_lines (shop_id, part_id);

-- Facts of the stock: what came, what was used, what was counted. A part's stock is their sum.
CREATE TABLE stock_movements (${ROW},
  part_id uuid NOT NULL,
  kind text NOT NULL CHECK (kind IN ('received', 'used', 'counted')),
  change integer NOT NULL,
  stock_after integer NOT NULL CHECK (stock_after >= 0),
  order_id uuid,
  kept_id uuid,
  note text,
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  ${PART},
  FOREIGN KEY (shop_id, order_id) REFERENCES orders (shop_id, id),
  FOREIGN KEY (shop_id, kept_id) REFERENCES kept_parts (shop_id, id),
  ${PERSON}
);
CREATE INDEX stock_movements_of_part ON stock_movements (shop_id, part_id, occurred_at DESC, id DESC);

-- What chains are closed with, as things: a link keeps its count of closings wherever it goes.
CREATE TABLE joints (${ROW},
  kind text NOT NULL CHECK (kind IN ('link', 'pin', 'riveted', 'clip')),
  part_id uuid,
  -- Closings before it was known here; null where nobody counted.
  closings_before integer CHECK (closings_before >= 0),
  ${PART}
);
CREATE TABLE joint_events (${ROW},
  joint_id uuid NOT NULL,
  chain_id uuid NOT NULL,
  kind text NOT NULL CHECK (kind IN ('seen', 'closed')),
  click text CHECK (click IN ('firm', 'weak', 'none')),
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  supersedes_id uuid,
  reason text,
  deleted boolean NOT NULL DEFAULT false,
  UNIQUE (shop_id, supersedes_id),
  FOREIGN KEY (shop_id, joint_id) REFERENCES joints (shop_id, id),
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  ${PERSON}
);
CREATE INDEX joint_events_of_chain ON joint_events (shop_id, chain_id, occurred_at DESC, id DESC);
CREATE INDEX joint_events_of_joint ON joint_events (shop_id, joint_id);
`

const SCOPED = TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
).join('\n')

const DOWN = `
DROP TABLE joint_events, joints, stock_movements, order_lines, orders, supplier_offers, kept_part_lines, kept_parts,
  catalogue_versions;
ALTER TABLE chains DROP COLUMN part_id;
ALTER TABLE drives DROP COLUMN timing_teeth, DROP COLUMN timing_from_mm, DROP COLUMN timing_to_mm;
DROP INDEX parts_in_order;
-- Every shop's, which the policies would hide.
ALTER TABLE parts NO FORCE ROW LEVEL SECURITY;
DELETE FROM parts WHERE kind IN ('cassette', 'ring', 'derailleur');
ALTER TABLE parts FORCE ROW LEVEL SECURITY;
ALTER TABLE parts DROP CONSTRAINT parts_kind_check;
ALTER TABLE parts ADD CONSTRAINT parts_kind_check CHECK (kind IN ('chain', 'link', 'pin', 'clip'));
`

export const stock: Migration = {
  name: '0008-stock',
  up: (run) => run(UP + SCOPED),
  down: (run) => run(DOWN),
}
