import type { Migration } from './migration.ts'

const UP = `
ALTER TABLE shops
  ADD COLUMN version integer NOT NULL DEFAULT 1,
  ADD COLUMN currency text NOT NULL DEFAULT 'GBP',
  ADD COLUMN locale text NOT NULL DEFAULT 'en-GB',
  ADD COLUMN temperature_unit text NOT NULL DEFAULT 'C' CHECK (temperature_unit IN ('C', 'F')),
  -- Monday to Sunday, each from and to by the clock, or null where the door stays shut.
  ADD COLUMN opening jsonb NOT NULL DEFAULT '[{"from":"09:00","to":"17:30"},{"from":"09:00","to":"17:30"},{"from":"09:00","to":"17:30"},{"from":"09:00","to":"17:30"},{"from":"09:00","to":"17:30"},{"from":"09:00","to":"13:00"},null]',
  ADD COLUMN stands integer NOT NULL DEFAULT 3 CHECK (stands BETWEEN 1 AND 40),
  -- The ways to treat a chain that are usual here, the most usual first.
  ADD COLUMN care_ways text[] NOT NULL DEFAULT '{wet-oil,dry-oil,drip-wax,immersion-wax}',
  -- When its owner came in for the first time; null: nobody has yet.
  ADD COLUMN begun_at timestamptz;
UPDATE shops SET begun_at = created_at;

-- Whoever has left keeps their name, and their initials are free for who comes after.
ALTER TABLE people
  ADD COLUMN version integer NOT NULL DEFAULT 1,
  ADD COLUMN left_on date,
  DROP CONSTRAINT people_shop_id_sign_in_name_key,
  DROP CONSTRAINT people_shop_id_initials_key;
CREATE UNIQUE INDEX people_by_sign_in_name ON people (shop_id, sign_in_name) WHERE active;
CREATE UNIQUE INDEX people_by_initials ON people (shop_id, initials) WHERE active;
-- Nobody's password fits until one is chosen.
ALTER TABLE people ALTER COLUMN password_hash DROP NOT NULL;

-- A link that lets one person in, once. Found by its token alone, before it is known which shop it is of.
CREATE TABLE invitations (
  token_hash bytea PRIMARY KEY,
  shop_id uuid NOT NULL REFERENCES shops (id),
  person_id uuid NOT NULL,
  kind text NOT NULL CHECK (kind IN ('first-day', 'invited', 'way-back')),
  expires_at timestamptz NOT NULL,
  used_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX invitations_of_person ON invitations (shop_id, person_id);

CREATE INDEX audit_by_time ON audit (shop_id, at DESC, id DESC);
`

const DOWN = `
DROP INDEX audit_by_time;
DROP TABLE invitations;
UPDATE people SET password_hash = '' WHERE password_hash IS NULL;
DROP INDEX people_by_sign_in_name, people_by_initials;
ALTER TABLE people ALTER COLUMN password_hash SET NOT NULL,
  ADD CONSTRAINT people_shop_id_sign_in_name_key UNIQUE (shop_id, sign_in_name),
  ADD CONSTRAINT people_shop_id_initials_key UNIQUE (shop_id, initials),
  DROP COLUMN version, DROP COLUMN left_on;
ALTER TABLE shops DROP COLUMN version, DROP COLUMN currency, DROP COLUMN locale, DROP COLUMN temperature_unit,
  DROP COLUMN opening, DROP COLUMN stands, DROP COLUMN care_ways, DROP COLUMN begun_at;
`

export const ownShop: Migration = {
  name: '0025-own-shop',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
