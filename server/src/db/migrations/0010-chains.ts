import type { Migration } from './migration.ts'

const UP = `
-- A chain that is off a bike may wait at home: in that bike's rotation.
ALTER TABLE chains
  ADD COLUMN home_bike_id uuid,
  ADD COLUMN version integer NOT NULL DEFAULT 1,
  ADD FOREIGN KEY (shop_id, home_bike_id) REFERENCES bikes (shop_id, id);
-- What the chain of a fitting had been before it went on, where it had been kept: so that a swap can be taken back.
ALTER TABLE fittings ADD COLUMN came_from jsonb;
CREATE INDEX chains_at_home ON chains (shop_id, home_bike_id) WHERE home_bike_id IS NOT NULL;
CREATE INDEX readings_by_chain ON readings (shop_id, chain_id);
CREATE INDEX chains_by_fate ON chains (shop_id, fate) WHERE fate IN ('spare', 'rotation', 'training');
`

const DOWN = `
DROP INDEX readings_by_chain;
DROP INDEX chains_by_fate;
ALTER TABLE fittings DROP COLUMN came_from;
ALTER TABLE chains DROP COLUMN home_bike_id, DROP COLUMN version;
`

export const chains: Migration = { name: '0010-chains', up: (run) => run(UP), down: (run) => run(DOWN) }
