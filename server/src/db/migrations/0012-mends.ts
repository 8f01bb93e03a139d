import type { Migration } from './migration.ts'

const UP = `
-- A chain that broke: what was found round the loop, what came out, and what was decided. Its joints and its count are written
-- as events of the chain in the same transaction.
CREATE TABLE mends (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  bike_id uuid NOT NULL,
  chain_id uuid NOT NULL,
  pitches integer NOT NULL CHECK (pitches > 0),
  broken text NOT NULL CHECK (broken IN ('inner', 'outer')),
  damaged integer[] NOT NULL,
  option jsonb,
  cause text NOT NULL,
  choice text NOT NULL CHECK (choice IN ('mended', 'replace')),
  advised text NOT NULL DEFAULT '',
  follow_up_on date,
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  supersedes_id uuid,
  reason text,
  deleted boolean NOT NULL DEFAULT false,
  PRIMARY KEY (shop_id, id),
  CHECK ((choice = 'mended') = (option IS NOT NULL)),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX mends_of_bike ON mends (shop_id, bike_id, occurred_at DESC);
CREATE INDEX mends_to_follow ON mends (shop_id, follow_up_on) WHERE follow_up_on IS NOT NULL;
ALTER TABLE mends ENABLE ROW LEVEL SECURITY;
ALTER TABLE mends FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON mends USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`

export const mends: Migration = { name: '0012-mends', up: (run) => run(UP), down: (run) => run('DROP TABLE mends;') }
