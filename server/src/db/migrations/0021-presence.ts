import type { Migration } from './migration.ts'

const UP = `
-- A device is the same one after signing out and in again: what it holds to be sent is still its own.
ALTER TABLE devices ADD COLUMN token_hash bytea, ADD COLUMN last_seen_at timestamptz;
CREATE UNIQUE INDEX devices_by_token ON devices (shop_id, token_hash) WHERE token_hash IS NOT NULL;

-- When whoever is present last typed their password here; a PIN is none.
ALTER TABLE sessions ADD COLUMN proved_at timestamptz;

-- Who has shown by password that they work on a device: they may take it over by PIN, and what they wrote there may arrive after they left.
CREATE TABLE device_people (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  device_id uuid NOT NULL,
  person_id uuid NOT NULL,
  -- What they might do when they were last here.
  role text NOT NULL,
  invited_at timestamptz NOT NULL DEFAULT now(),
  last_here_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (shop_id, device_id, person_id),
  FOREIGN KEY (shop_id, device_id) REFERENCES devices (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);

-- Who tried to sign in and did not succeed: how often in a row, and until when the next try is not looked at.
CREATE TABLE sign_in_tries (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  subject text NOT NULL,
  failed int NOT NULL,
  last_at timestamptz NOT NULL,
  waits_until timestamptz NOT NULL,
  PRIMARY KEY (shop_id, subject)
);

-- Who has looked at what an apprentice wrote down.
CREATE TABLE looks (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  subject_kind text NOT NULL CHECK (subject_kind IN ('reading', 'care', 'job-event', 'wear-check')),
  subject_id uuid NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  PRIMARY KEY (shop_id, subject_kind, subject_id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);

-- What came with an archive was not done here.
ALTER TABLE audit ADD COLUMN elsewhere boolean NOT NULL DEFAULT false;

-- How far the state of a shop's bikes has been derived anew, after what is stored became outdated.
CREATE TABLE state_rebuilds (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() PRIMARY KEY REFERENCES shops (id),
  asked_at timestamptz NOT NULL,
  after_bike uuid,
  done int NOT NULL DEFAULT 0,
  finished_at timestamptz
);

DO $$
DECLARE shop uuid;
BEGIN
  FOR shop IN SELECT id FROM shops LOOP
    PERFORM set_config('pelrin.shop_id', shop::text, true);
    INSERT INTO device_people (device_id, person_id, role)
      SELECT DISTINCT s.device_id, sp.person_id, p.role FROM session_people sp
      JOIN sessions s ON s.token_hash = sp.token_hash JOIN people p ON p.id = sp.person_id
      ON CONFLICT DO NOTHING;
  END LOOP;
  PERFORM set_config('pelrin.shop_id', '', true);
END $$;
DROP TABLE session_people;

-- Only an owner may have a table looked at anew, and the server owns none.
CREATE FUNCTION pelrin_analyze(wanted text) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
DECLARE found text;
BEGIN
  FOR found IN SELECT relname FROM pg_class
    WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace AND (wanted IS NULL OR relname = wanted)
  LOOP
    EXECUTE format('ANALYZE %I', found);
  END LOOP;
END $$;

${['device_people', 'sign_in_tries', 'looks', 'state_rebuilds']
  .map(
    (table) => `ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
  )
  .join('\n')}
`

const DOWN = `
CREATE TABLE session_people (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  token_hash bytea NOT NULL REFERENCES sessions (token_hash) ON DELETE CASCADE,
  person_id uuid NOT NULL,
  since timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (shop_id, token_hash, person_id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
DROP FUNCTION pelrin_analyze(text);
DROP TABLE state_rebuilds, looks, sign_in_tries, device_people;
ALTER TABLE audit DROP COLUMN elsewhere;
ALTER TABLE sessions DROP COLUMN proved_at;
DROP INDEX devices_by_token;
ALTER TABLE devices DROP COLUMN token_hash, DROP COLUMN last_seen_at;
`

export const presence: Migration = {
  name: '0021-presence',
  outdatesState: true,
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
