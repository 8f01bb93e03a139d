import type { Migration } from './migration.ts'

const UP = `
ALTER TABLE bikes
  -- Entered twice: everything of it is with the other since, and it is looked for under that.
  ADD COLUMN merged_into_id uuid,
  ADD COLUMN merged_at timestamptz,
  -- Where each thing was before, so that they can be two again within the day.
  ADD COLUMN merge_moved jsonb,
  -- Whichever of the two an archive brings first.
  ADD FOREIGN KEY (shop_id, merged_into_id) REFERENCES bikes (shop_id, id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE customers ALTER CONSTRAINT customers_shop_id_merged_into_id_fkey DEFERRABLE INITIALLY DEFERRED;
CREATE INDEX bikes_merged_into ON bikes (shop_id, merged_into_id) WHERE merged_into_id IS NOT NULL;

-- What a bike looks like: one picture, small enough to be kept with it.
CREATE TABLE bike_pictures (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  bike_id uuid NOT NULL,
  jpeg bytea NOT NULL CHECK (octet_length(jpeg) <= 1000000),
  width integer NOT NULL CHECK (width BETWEEN 1 AND 4000),
  height integer NOT NULL CHECK (height BETWEEN 1 AND 4000),
  taken_at timestamptz NOT NULL,
  person_id uuid NOT NULL,
  PRIMARY KEY (shop_id, bike_id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
ALTER TABLE bike_pictures ENABLE ROW LEVEL SECURITY;
ALTER TABLE bike_pictures FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON bike_pictures USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`

const DOWN = `
DROP TABLE bike_pictures;
ALTER TABLE customers ALTER CONSTRAINT customers_shop_id_merged_into_id_fkey NOT DEFERRABLE;
DROP INDEX bikes_merged_into;
ALTER TABLE bikes DROP COLUMN merged_into_id, DROP COLUMN merged_at, DROP COLUMN merge_moved;
`

export const bikeTwins: Migration = {
  name: '0030-bike-twins',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
