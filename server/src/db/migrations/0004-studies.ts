import type { Migration } from './migration.ts'

const TABLES = ['studies', 'study_values'] as const

const UP = `
CREATE TABLE studies (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  instrument_id uuid NOT NULL,
  title text NOT NULL,
  people uuid[] NOT NULL,
  spots jsonb NOT NULL,
  repeats integer NOT NULL CHECK (repeats BETWEEN 1 AND 6),
  pitches integer CHECK (pitches BETWEEN 2 AND 300),
  reference_u double precision NOT NULL CHECK (reference_u >= 0),
  started_at timestamptz NOT NULL,
  person_id uuid NOT NULL,
  closed_at timestamptz,
  result jsonb,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, instrument_id) REFERENCES instruments (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
  CHECK ((closed_at IS NULL) = (result IS NULL))
);
CREATE INDEX studies_by_instrument ON studies (shop_id, instrument_id, started_at);
-- Facts: what was entered again supersedes what was entered before.
CREATE TABLE study_values (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  study_id uuid NOT NULL,
  person_id uuid NOT NULL,
  device_id uuid,
  recorded_at timestamptz NOT NULL,
  supersedes_id uuid,
  spot integer NOT NULL CHECK (spot >= 0),
  repeat integer NOT NULL CHECK (repeat >= 0),
  typed text NOT NULL,
  value double precision,
  PRIMARY KEY (shop_id, id),
  UNIQUE (shop_id, supersedes_id),
  FOREIGN KEY (shop_id, study_id) REFERENCES studies (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES study_values (shop_id, id)
);
-- One first value a turn; what follows it is a chain.
CREATE UNIQUE INDEX study_values_one_a_turn ON study_values (shop_id, study_id, person_id, spot, repeat)
  WHERE supersedes_id IS NULL;
`

const SCOPED = TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
).join('\n')

export const studies: Migration = {
  name: '0004-studies',
  up: (run) => run(UP + SCOPED),
  down: (run) => run('DROP TABLE study_values, studies;'),
}
