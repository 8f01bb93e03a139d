import type { Migration } from './migration.ts'

const UP = `
-- What was seen of a bike's other parts. What was typed stays beside what it came to.
CREATE TABLE wear_checks (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  bike_id uuid NOT NULL,
  item text NOT NULL,
  grade text CHECK (grade IN ('as-new', 'used', 'worn', 'done')),
  result text CHECK (result IN ('good', 'watch', 'change')),
  typed text,
  mm double precision CHECK (mm > 0),
  minimum_mm double precision CHECK (minimum_mm > 0),
  u double precision CHECK (u > 0),
  renewed boolean NOT NULL DEFAULT false,
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
  CHECK (num_nonnulls(grade, result, mm) = 1),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES wear_checks (shop_id, id)
);
CREATE INDEX wear_checks_of_bike ON wear_checks (shop_id, bike_id, item, occurred_at DESC);
ALTER TABLE wear_checks ENABLE ROW LEVEL SECURITY;
ALTER TABLE wear_checks FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON wear_checks USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`

export const otherWear: Migration = {
  name: '0011-other-wear',
  up: (run) => run(UP),
  down: (run) => run('DROP TABLE wear_checks;'),
}
