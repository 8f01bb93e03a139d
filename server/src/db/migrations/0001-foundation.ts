import type { Migration } from './migration.ts'

/** Facts are appended and never rewritten: each says when it happened, when it was written down, by whom and where. */
const FACT = `
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  supersedes_id uuid,
  reason text,
  deleted boolean NOT NULL DEFAULT false,
  UNIQUE (shop_id, supersedes_id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)`

const ROW = `
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  PRIMARY KEY (shop_id, id)`

/** Tables whose rows only their own shop can see. `shops` and `sessions` lead into a shop and are not among them. */
export const SHOP_TABLES = [
  'people',
  'devices',
  'session_people',
  'customers',
  'house_rules',
  'house_rule_versions',
  'bikes',
  'drives',
  'chains',
  'chain_events',
  'fittings',
  'distance_entries',
  'instruments',
  'instrument_versions',
  'readings',
  'spots',
  'verdicts',
  'visits',
  'bike_state',
  'audit',
  'idempotency_keys',
] as const

const UP = `
CREATE EXTENSION IF NOT EXISTS pg_trgm;
CREATE EXTENSION IF NOT EXISTS btree_gist;
CREATE EXTENSION IF NOT EXISTS btree_gin;
CREATE EXTENSION IF NOT EXISTS unaccent;

CREATE TABLE shops (
  id uuid PRIMARY KEY,
  code text NOT NULL UNIQUE,
  name text NOT NULL,
  time_zone text NOT NULL,
  distance_unit text NOT NULL DEFAULT 'km' CHECK (distance_unit IN ('km', 'mi')),
  demo boolean NOT NULL DEFAULT false,
  created_at timestamptz NOT NULL DEFAULT now()
);

-- The shop a transaction works in. Without one it is null, and a query then finds nothing and can write nothing.
CREATE FUNCTION pelrin_shop() RETURNS uuid LANGUAGE sql STABLE
  AS $$ SELECT nullif(current_setting('pelrin.shop_id', true), '')::uuid $$;

CREATE TABLE people (${ROW},
  name text NOT NULL,
  initials text NOT NULL,
  sign_in_name text NOT NULL,
  role text NOT NULL CHECK (role IN ('owner', 'mechanic', 'desk', 'apprentice', 'read-only')),
  password_hash text NOT NULL,
  pin_hash text,
  active boolean NOT NULL DEFAULT true,
  demo_password text,
  UNIQUE (shop_id, sign_in_name),
  UNIQUE (shop_id, initials)
);

CREATE TABLE devices (${ROW},
  name text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE sessions (
  token_hash bytea PRIMARY KEY,
  shop_id uuid NOT NULL REFERENCES shops (id),
  device_id uuid NOT NULL,
  person_id uuid NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  last_seen_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL,
  FOREIGN KEY (shop_id, device_id) REFERENCES devices (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX sessions_expiry ON sessions (expires_at);

CREATE TABLE session_people (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  token_hash bytea NOT NULL REFERENCES sessions (token_hash) ON DELETE CASCADE,
  person_id uuid NOT NULL,
  since timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (shop_id, token_hash, person_id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);

CREATE TABLE house_rules (${ROW},
  school text NOT NULL CHECK (school IN ('by-speeds', 'early-change', 'plan-and-change', 'as-marked', 'custom')),
  name text,
  is_default boolean NOT NULL DEFAULT false
);
CREATE UNIQUE INDEX house_rules_one_default ON house_rules (shop_id) WHERE is_default;

CREATE TABLE house_rule_versions (${ROW},
  house_rule_id uuid NOT NULL,
  version integer NOT NULL,
  limits jsonb NOT NULL,
  watch_share double precision NOT NULL CHECK (watch_share > 0 AND watch_share <= 1),
  valid_from timestamptz NOT NULL DEFAULT now(),
  person_id uuid,
  UNIQUE (shop_id, house_rule_id, version),
  FOREIGN KEY (shop_id, house_rule_id) REFERENCES house_rules (shop_id, id)
);

CREATE TABLE customers (${ROW},
  name text NOT NULL,
  phone text,
  house_rule_id uuid,
  version integer NOT NULL DEFAULT 1,
  FOREIGN KEY (shop_id, house_rule_id) REFERENCES house_rules (shop_id, id)
);

CREATE TABLE bikes (${ROW},
  customer_id uuid NOT NULL,
  label text NOT NULL,
  maker text,
  model text,
  kind text NOT NULL,
  tag text NOT NULL,
  frame_mark text,
  notes text NOT NULL DEFAULT '',
  odometer_unit text NOT NULL DEFAULT 'km' CHECK (odometer_unit IN ('km', 'mi')),
  house_rule_id uuid,
  version integer NOT NULL DEFAULT 1,
  UNIQUE (shop_id, tag),
  FOREIGN KEY (shop_id, customer_id) REFERENCES customers (shop_id, id),
  FOREIGN KEY (shop_id, house_rule_id) REFERENCES house_rules (shop_id, id)
);
CREATE INDEX bikes_by_customer ON bikes (shop_id, customer_id);

CREATE TABLE drives (${ROW},
  bike_id uuid NOT NULL,
  type text NOT NULL CHECK (type IN ('derailleur', 'hub-gear', 'single-speed')),
  speeds integer NOT NULL CHECK (speeds BETWEEN 1 AND 30),
  fronts integer[] NOT NULL DEFAULT '{}',
  sprockets integer[] NOT NULL DEFAULT '{}',
  motor boolean NOT NULL DEFAULT false,
  UNIQUE (shop_id, bike_id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id)
);

CREATE TABLE chains (${ROW},
  name text NOT NULL,
  pitches integer CHECK (pitches BETWEEN 2 AND 400),
  care text NOT NULL DEFAULT 'unknown' CHECK (care IN ('immersion-wax', 'drip-wax', 'dry-oil', 'wet-oil', 'unknown'))
);

CREATE TABLE chain_events (${FACT},
  chain_id uuid NOT NULL,
  kind text NOT NULL CHECK (kind IN ('cut', 'shortened', 'rejoined')),
  pitches_after integer,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES chain_events (shop_id, id)
);
CREATE INDEX chain_events_by_chain ON chain_events (shop_id, chain_id, occurred_at);

-- A fitting is a chain on a bike over a range of time. Neither may be in two at once.
CREATE TABLE fittings (${ROW},
  bike_id uuid NOT NULL,
  chain_id uuid NOT NULL,
  during tstzrange NOT NULL CHECK (NOT isempty(during) AND NOT lower_inf(during)),
  start text NOT NULL CHECK (start IN ('fitted', 'stated', 'unknown')),
  end_reason text CHECK (end_reason IN ('worn', 'broken', 'damaged', 'early', 'swapped')),
  person_id uuid NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  CONSTRAINT fittings_one_chain_a_bike EXCLUDE USING gist (shop_id WITH =, bike_id WITH =, during WITH &&),
  CONSTRAINT fittings_one_bike_a_chain EXCLUDE USING gist (shop_id WITH =, chain_id WITH =, during WITH &&)
);

CREATE TABLE distance_entries (${FACT},
  bike_id uuid NOT NULL,
  kind text NOT NULL CHECK (kind IN ('odometer')),
  typed text NOT NULL,
  unit text NOT NULL CHECK (unit IN ('km', 'mi')),
  km double precision NOT NULL CHECK (km >= 0),
  restarted boolean NOT NULL DEFAULT false,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES distance_entries (shop_id, id)
);
CREATE INDEX distance_entries_by_bike ON distance_entries (shop_id, bike_id, occurred_at);

CREATE TABLE instruments (${ROW},
  kind text NOT NULL,
  name text NOT NULL,
  retired_at timestamptz
);

CREATE TABLE instrument_versions (${ROW},
  instrument_id uuid NOT NULL,
  version integer NOT NULL,
  u_mm double precision CHECK (u_mm > 0),
  u double precision CHECK (u > 0),
  bias double precision NOT NULL DEFAULT 0,
  bias_u double precision NOT NULL DEFAULT 0 CHECK (bias_u >= 0),
  marks double precision[],
  checked_on date,
  valid_from timestamptz NOT NULL,
  person_id uuid NOT NULL,
  reason text NOT NULL,
  UNIQUE (shop_id, instrument_id, version),
  FOREIGN KEY (shop_id, instrument_id) REFERENCES instruments (shop_id, id)
);

-- Time is in the key of readings and spots, so that they can be partitioned by it.
CREATE TABLE readings (${FACT},
  bike_id uuid NOT NULL,
  chain_id uuid NOT NULL,
  fitting_id uuid NOT NULL,
  instrument_id uuid NOT NULL,
  instrument_version_id uuid NOT NULL,
  distance_entry_id uuid,
  source text NOT NULL DEFAULT 'shop' CHECK (source IN ('shop', 'customer')),
  run text NOT NULL DEFAULT 'lower' CHECK (run IN ('lower', 'upper')),
  hint text CHECK (hint IN ('worn', 'nothing')),
  note text,
  PRIMARY KEY (shop_id, id, occurred_at),
  UNIQUE (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  FOREIGN KEY (shop_id, fitting_id) REFERENCES fittings (shop_id, id),
  FOREIGN KEY (shop_id, instrument_id) REFERENCES instruments (shop_id, id),
  FOREIGN KEY (shop_id, instrument_version_id) REFERENCES instrument_versions (shop_id, id),
  FOREIGN KEY (shop_id, distance_entry_id) REFERENCES distance_entries (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES readings (shop_id, id)
);
CREATE INDEX readings_by_bike ON readings (shop_id, bike_id, occurred_at);

-- Raw first: what was typed, with the count chosen. Elongation and u are derived from it and can be derived again.
CREATE TABLE spots (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  reading_id uuid NOT NULL,
  reading_occurred_at timestamptz NOT NULL,
  position integer NOT NULL CHECK (position BETWEEN 0 AND 7),
  place integer CHECK (place BETWEEN 1 AND 8),
  typed text,
  unit text CHECK (unit IN ('mm', 'in')),
  past_mark_mm double precision,
  length_mm double precision,
  pitches integer,
  value double precision,
  over double precision,
  under double precision,
  u double precision NOT NULL CHECK (u > 0),
  CHECK (value IS NOT NULL OR over IS NOT NULL OR under IS NOT NULL),
  CHECK (over < under),
  PRIMARY KEY (shop_id, id, reading_occurred_at),
  UNIQUE (shop_id, reading_id, position),
  FOREIGN KEY (shop_id, reading_id, reading_occurred_at) REFERENCES readings (shop_id, id, occurred_at)
);

CREATE TABLE verdicts (${FACT},
  bike_id uuid NOT NULL,
  chain_id uuid,
  fitting_id uuid,
  reading_id uuid,
  house_rule_version_id uuid NOT NULL,
  word text NOT NULL,
  probability double precision,
  input jsonb NOT NULL,
  outcome jsonb NOT NULL,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, reading_id) REFERENCES readings (shop_id, id),
  FOREIGN KEY (shop_id, house_rule_version_id) REFERENCES house_rule_versions (shop_id, id)
);
CREATE INDEX verdicts_by_bike ON verdicts (shop_id, bike_id, recorded_at);

CREATE TABLE visits (${ROW},
  bike_id uuid NOT NULL,
  day date NOT NULL,
  position double precision NOT NULL,
  promised_at timestamptz,
  reason text NOT NULL,
  state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'on-stand', 'done')),
  on_stand_since timestamptz,
  device_id uuid,
  version integer NOT NULL DEFAULT 1,
  UNIQUE (shop_id, day, bike_id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, device_id) REFERENCES devices (shop_id, id),
  CHECK ((state = 'on-stand') = (device_id IS NOT NULL))
);
CREATE UNIQUE INDEX visits_one_bike_a_stand ON visits (shop_id, device_id) WHERE state = 'on-stand';

-- What lists need of a bike, as of the last fact taken in. Nothing in it is relative to today.
CREATE TABLE bike_state (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  bike_id uuid NOT NULL,
  chain_id uuid,
  fitting_id uuid,
  verdict_id uuid,
  house_rule_version_id uuid NOT NULL,
  word text NOT NULL,
  advice text,
  flags text[] NOT NULL,
  probability double precision,
  median double precision,
  limit_at double precision NOT NULL,
  marks jsonb NOT NULL,
  measured_at timestamptz,
  check_on date,
  chain_km double precision,
  trouble_rank smallint NOT NULL,
  trouble_on date NOT NULL,
  search_text text NOT NULL,
  last_fact_id uuid,
  PRIMARY KEY (shop_id, bike_id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id)
);
CREATE INDEX bike_state_by_trouble ON bike_state (shop_id, trouble_rank, trouble_on, bike_id);
CREATE INDEX bike_state_by_text ON bike_state USING gin (shop_id, search_text gin_trgm_ops);

CREATE TABLE audit (${ROW},
  at timestamptz NOT NULL DEFAULT now(),
  person_id uuid,
  device_id uuid,
  request_id text,
  action text NOT NULL,
  subject_kind text NOT NULL,
  subject_id uuid NOT NULL,
  detail jsonb NOT NULL
);
CREATE INDEX audit_by_subject ON audit (shop_id, subject_id, at);

CREATE TABLE idempotency_keys (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  key text NOT NULL,
  request_hash text NOT NULL,
  status integer,
  response jsonb,
  created_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (shop_id, key)
);
`

const SCOPED = SHOP_TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
).join('\n')

const DOWN = `
DROP TABLE ${[...SHOP_TABLES, 'sessions', 'shops'].join(', ')} CASCADE;
DROP FUNCTION pelrin_shop();
`

export const foundation: Migration = {
  name: '0001-foundation',
  up: (run) => run(UP + SCOPED),
  down: (run) => run(DOWN),
}
