import type { Migration } from './migration.ts'

const UP = `
ALTER TABLE instruments
  ADD COLUMN connection text,
  ADD CONSTRAINT instruments_kind CHECK (kind IN
    ('steel-rule', 'caliper', 'drop-in', 'swing-arm', 'graduated', 'digital', 'full-length', 'by-hand'));
-- One name, one instrument on the wall.
CREATE UNIQUE INDEX instruments_by_name ON instruments (shop_id, lower(name)) WHERE retired_at IS NULL;

ALTER TABLE instrument_versions
  ADD COLUMN material text CHECK (material IN ('steel', 'stainless', 'brass', 'aluminium')),
  ADD COLUMN roller_mm double precision CHECK (roller_mm > 0),
  ADD COLUMN sees_roller_wear boolean NOT NULL DEFAULT false,
  ADD COLUMN change_mark double precision CHECK (change_mark > 0),
  ADD COLUMN standing text NOT NULL DEFAULT 'in-use' CHECK (standing IN ('in-use', 'out-of-use')),
  ADD COLUMN reads text CHECK (reads IN ('true', 'early', 'late')),
  ADD COLUMN checked_how text CHECK (checked_how IN ('strip', 'better-instrument', 'known-chain', 'study')),
  ADD COLUMN check_detail jsonb;

ALTER TABLE readings
  ADD COLUMN load text CHECK (load IN ('tensioned', 'slack')),
  ADD COLUMN rule_celsius double precision,
  ADD COLUMN chain_celsius double precision,
  ADD COLUMN preload_kg double precision CHECK (preload_kg >= 0),
  ADD COLUMN reader_id uuid,
  ADD COLUMN baseline boolean NOT NULL DEFAULT false,
  ADD COLUMN signs text[] NOT NULL DEFAULT '{}',
  ADD FOREIGN KEY (shop_id, reader_id) REFERENCES people (shop_id, id);

ALTER TABLE spots
  ADD COLUMN mode text CHECK (mode IN ('pin-to-pin', 'inside-rollers', 'outside-rollers')),
  ADD COLUMN picture text CHECK (picture IN ('centre', 'half', 'edge', 'clear')),
  ADD COLUMN link_included boolean,
  ADD COLUMN borderline boolean NOT NULL DEFAULT false;
CREATE INDEX readings_by_instrument ON readings (shop_id, instrument_version_id);
`

const DOWN = `
DROP INDEX readings_by_instrument;
ALTER TABLE spots DROP COLUMN mode, DROP COLUMN picture, DROP COLUMN link_included, DROP COLUMN borderline;
ALTER TABLE readings DROP COLUMN load, DROP COLUMN rule_celsius, DROP COLUMN chain_celsius, DROP COLUMN preload_kg,
  DROP COLUMN reader_id, DROP COLUMN baseline, DROP COLUMN signs;
ALTER TABLE instrument_versions DROP COLUMN material, DROP COLUMN roller_mm, DROP COLUMN sees_roller_wear,
  DROP COLUMN change_mark, DROP COLUMN standing, DROP COLUMN reads, DROP COLUMN checked_how, DROP COLUMN check_detail;
DROP INDEX instruments_by_name;
ALTER TABLE instruments DROP CONSTRAINT instruments_kind, DROP COLUMN connection;
`

export const instruments: Migration = {
  name: '0002-instruments',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
