import type { Migration } from './migration.ts'

const KINDS = ['chain', 'link', 'pin', 'clip', 'cassette', 'ring', 'derailleur']
const MORE = ['pulley', 'rotor', 'pads', 'tyre', 'consumable', 'tool']
const kinds = (all: readonly string[]): string => `
ALTER TABLE parts DROP CONSTRAINT parts_kind_check;
ALTER TABLE parts ADD CONSTRAINT parts_kind_check CHECK (kind IN (${all.map((one) => `'${one}'`).join(', ')}));`

const UP = `
${kinds([...KINDS, ...MORE])}
-- What else wears on a bike, as things with lives: which part, from when to when, and why it came off.
CREATE TABLE components (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  bike_id uuid NOT NULL,
  item text NOT NULL,
  part_id uuid,
  -- What it is, where it is of no part of the catalogue.
  name text,
  price integer CHECK (price >= 0),
  during tstzrange NOT NULL CHECK (isempty(during) OR NOT lower_inf(during)),
  end_reason text CHECK (end_reason IN ('worn', 'damaged', 'swapped')),
  -- It came out of stock.
  from_stock boolean NOT NULL DEFAULT false,
  -- What it was fitted by, where that is a fact of its own: taken back with it.
  because_id uuid,
  person_id uuid NOT NULL,
  device_id uuid,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (shop_id, id),
  EXCLUDE USING gist (shop_id WITH =, bike_id WITH =, item WITH =, during WITH &&) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, part_id) REFERENCES parts (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX components_of_bike ON components (shop_id, bike_id, item);
CREATE INDEX components_because ON components (shop_id, because_id) WHERE because_id IS NOT NULL;
-- A tick that a new one was fitted was the beginning of a life. Every shop's, which the policies would hide.
ALTER TABLE wear_checks NO FORCE ROW LEVEL SECURITY;
INSERT INTO components (shop_id, id, bike_id, item, during, end_reason, because_id, person_id, device_id, recorded_at)
SELECT w.shop_id, gen_random_uuid(), w.bike_id, w.item,
  tstzrange(w.occurred_at, lead(w.occurred_at) OVER one, '[)'),
  CASE WHEN lead(w.occurred_at) OVER one IS NULL THEN NULL ELSE 'worn' END,
  w.id, w.person_id, w.device_id, w.recorded_at
FROM wear_checks w
WHERE w.renewed AND NOT w.deleted
  AND NOT EXISTS (SELECT 1 FROM wear_checks later WHERE later.shop_id = w.shop_id AND later.supersedes_id = w.id)
WINDOW one AS (PARTITION BY w.shop_id, w.bike_id, w.item ORDER BY w.occurred_at, w.id);
ALTER TABLE wear_checks FORCE ROW LEVEL SECURITY;
ALTER TABLE components ENABLE ROW LEVEL SECURITY;
ALTER TABLE components FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON components USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`

const DOWN = `
DROP TABLE components;
-- Parts of kinds there were none of before; every shop's, which the policies would hide.
ALTER TABLE parts NO FORCE ROW LEVEL SECURITY;
ALTER TABLE stock_movements NO FORCE ROW LEVEL SECURITY;
DELETE FROM stock_movements m USING parts p
WHERE p.shop_id = m.shop_id AND p.id = m.part_id AND p.kind IN (${MORE.map((one) => `'${one}'`).join(', ')});
ALTER TABLE stock_movements FORCE ROW LEVEL SECURITY;
DELETE FROM parts WHERE kind IN (${MORE.map((one) => `'${one}'`).join(', ')});
ALTER TABLE parts FORCE ROW LEVEL SECURITY;
${kinds(KINDS)}
`

export const components: Migration = { name: '0033-components', up: (run) => run(UP), down: (run) => run(DOWN) }
