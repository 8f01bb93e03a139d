import type { Migration } from './migration.ts'

const TABLES = [
  'rides',
  'ride_tracks',
  'ride_imports',
  'staged_rides',
  'csv_mappings',
  'ride_accounts',
  'prior_versions',
  'forecast_runs',
] as const

const FACT = `
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  supersedes_id uuid,
  reason text,
  deleted boolean NOT NULL DEFAULT false`

const UP = `
-- As its customer told it: what a bike is ridden in a year, or what its chain had run before it was known here.
ALTER TABLE distance_entries DROP CONSTRAINT distance_entries_kind_check;
ALTER TABLE distance_entries ADD CONSTRAINT distance_entries_kind_check CHECK (kind IN ('odometer', 'statement', 'chain-start'));

-- A ride service's account of one bike. What was pulled is remembered by a cursor, so that a pull goes on where the
-- last one ended.
CREATE TABLE ride_accounts (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  bike_id uuid NOT NULL,
  address text NOT NULL,
  account text NOT NULL,
  token text NOT NULL,
  pulled_to text,
  pulled_at timestamptz,
  outcome jsonb,
  removed_at timestamptz,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id)
);
CREATE UNIQUE INDEX ride_accounts_one_a_bike ON ride_accounts (shop_id, bike_id) WHERE removed_at IS NULL;

CREATE TABLE ride_imports (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  bike_id uuid NOT NULL,
  person_id uuid NOT NULL,
  started_at timestamptz NOT NULL,
  finished_at timestamptz,
  state text NOT NULL CHECK (state IN ('reading', 'previewed', 'done', 'cancelled', 'failed')),
  files integer NOT NULL DEFAULT 0,
  done integer NOT NULL DEFAULT 0,
  report jsonb NOT NULL DEFAULT '[]',
  tables jsonb NOT NULL DEFAULT '[]',
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id)
);
CREATE INDEX ride_imports_by_bike ON ride_imports (shop_id, bike_id, started_at);

-- What an import read, until it is confirmed or stopped.
CREATE TABLE staged_rides (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  import_id uuid NOT NULL,
  file text NOT NULL,
  ride jsonb NOT NULL,
  points bytea,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, import_id) REFERENCES ride_imports (shop_id, id) ON DELETE CASCADE
);
CREATE INDEX staged_rides_by_import ON staged_rides (shop_id, import_id);

-- Which columns of a table of rides mean what, by the table's own header.
CREATE TABLE csv_mappings (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  header text NOT NULL,
  mapping jsonb NOT NULL,
  PRIMARY KEY (shop_id, header)
);

-- Time is in the key of rides, so that they can be partitioned by it.
CREATE TABLE rides (${FACT},
  bike_id uuid NOT NULL,
  ended_at timestamptz NOT NULL,
  km double precision NOT NULL CHECK (km >= 0),
  surface text CHECK (surface IN ('dry', 'damp', 'wet', 'gritty')),
  title text,
  source text NOT NULL CHECK (source IN ('typed', 'file', 'service')),
  profile jsonb,
  import_id uuid,
  account_id uuid,
  external_id text,
  CHECK (ended_at > occurred_at),
  PRIMARY KEY (shop_id, id, occurred_at),
  UNIQUE (shop_id, id),
  UNIQUE (shop_id, supersedes_id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES rides (shop_id, id),
  FOREIGN KEY (shop_id, import_id) REFERENCES ride_imports (shop_id, id),
  FOREIGN KEY (shop_id, account_id) REFERENCES ride_accounts (shop_id, id)
);
CREATE INDEX rides_by_bike ON rides (shop_id, bike_id, occurred_at);
CREATE INDEX rides_by_external ON rides (shop_id, account_id, external_id) WHERE external_id IS NOT NULL;

-- Where a ride went, for giving it out again: compressed, thinned.
CREATE TABLE ride_tracks (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  ride_id uuid NOT NULL,
  points bytea NOT NULL,
  PRIMARY KEY (shop_id, ride_id),
  FOREIGN KEY (shop_id, ride_id) REFERENCES rides (shop_id, id)
);

-- What the shop's own chains taught of their life, by care. A version is never rewritten; the newest not taken back is
-- in force.
CREATE TABLE prior_versions (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  version integer NOT NULL,
  learned_at timestamptz NOT NULL,
  person_id uuid NOT NULL,
  groups jsonb NOT NULL,
  undone_at timestamptz,
  PRIMARY KEY (shop_id, id),
  UNIQUE (shop_id, version),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);

-- A forecast of every chain of the shop: how far it came, so that it goes on after a stop.
CREATE TABLE forecast_runs (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  person_id uuid NOT NULL,
  state text NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'cancelled', 'failed')),
  done integer NOT NULL DEFAULT 0,
  "of" integer NOT NULL,
  last_bike_id uuid,
  asked_at timestamptz NOT NULL,
  started_at timestamptz,
  finished_at timestamptz,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE UNIQUE INDEX forecast_runs_one_at_a_time ON forecast_runs (shop_id) WHERE state IN ('waiting', 'running');

ALTER TABLE bike_state
  ADD COLUMN forecast jsonb,
  ADD COLUMN over_on date,
  ADD COLUMN mix jsonb,
  ADD COLUMN km_per_day double precision;
`

const SCOPED = TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
).join('\n')

const DOWN = `
ALTER TABLE bike_state DROP COLUMN forecast, DROP COLUMN over_on, DROP COLUMN mix, DROP COLUMN km_per_day;
DROP TABLE ride_tracks, rides, staged_rides, ride_imports, csv_mappings, ride_accounts, prior_versions, forecast_runs;
DELETE FROM distance_entries WHERE kind <> 'odometer';
ALTER TABLE distance_entries DROP CONSTRAINT distance_entries_kind_check;
ALTER TABLE distance_entries ADD CONSTRAINT distance_entries_kind_check CHECK (kind IN ('odometer'));
`

export const distanceAndForecast: Migration = {
  name: '0005-distance-and-forecast',
  outdatesState: true,
  up: (run) => run(UP + SCOPED),
  down: (run) => run(DOWN),
}
