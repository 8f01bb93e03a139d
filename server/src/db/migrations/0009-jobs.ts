import type { Migration } from './migration.ts'

const TABLES = ['jobs', 'job_events', 'offcuts'] as const

const ROW = `
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  PRIMARY KEY (shop_id, id)`
const PERSON = `FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)`

const UP = `
-- What of a drive the steps of a job follow from; not known is null.
ALTER TABLE drives
  ADD COLUMN guide text CHECK (guide IN ('front-derailleur', 'chain-guide', 'none')),
  ADD COLUMN wide_narrow boolean,
  ADD COLUMN clutch boolean,
  ADD COLUMN cage_lock boolean,
  ADD COLUMN disc_brake boolean;

-- What became of a chain that came off.
ALTER TABLE chains ADD COLUMN fate text CHECK (fate IN ('scrapped', 'spare', 'rotation', 'training'));

-- A fitting that was taken back keeps its row, over no time at all.
ALTER TABLE fittings DROP CONSTRAINT fittings_during_check;
ALTER TABLE fittings ADD CONSTRAINT fittings_during_check CHECK (isempty(during) OR NOT lower_inf(during));

-- A job at the stand: what it began with. What happens on it are events; its steps follow from both.
CREATE TABLE jobs (${ROW},
  bike_id uuid NOT NULL,
  state text NOT NULL CHECK (state IN ('open', 'closed', 'stopped', 'undone')),
  plan jsonb NOT NULL,
  parts jsonb NOT NULL,
  kept_id uuid,
  opened_at timestamptz NOT NULL,
  closed_at timestamptz,
  -- What closing wrote, by its ids, so that it can be taken back within the day.
  written jsonb,
  person_id uuid NOT NULL,
  version integer NOT NULL DEFAULT 1,
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, kept_id) REFERENCES kept_parts (shop_id, id),
  ${PERSON}
);
CREATE UNIQUE INDEX jobs_one_open_a_bike ON jobs (shop_id, bike_id) WHERE state = 'open';
CREATE INDEX jobs_of_bike ON jobs (shop_id, bike_id, opened_at DESC);

CREATE TABLE job_events (${ROW},
  job_id uuid NOT NULL,
  kind text NOT NULL CHECK (kind IN
    ('tick', 'untick', 'outcome', 'outcome-back', 'choice', 'note', 'take-over', 'pause', 'resume')),
  detail jsonb NOT NULL DEFAULT '{}',
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
  ${PERSON}
);
CREATE INDEX job_events_of_job ON job_events (shop_id, job_id, occurred_at, id);

-- Pitches cut off a new chain, kept for a repair of that chain.
CREATE TABLE offcuts (${ROW},
  chain_id uuid NOT NULL,
  job_id uuid NOT NULL,
  pitches integer NOT NULL CHECK (pitches > 0),
  kept_at timestamptz NOT NULL,
  gone_at timestamptz,
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
);
`

const SCOPED = TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
).join('\n')

const DOWN = `
DROP TABLE offcuts, job_events, jobs;
ALTER TABLE fittings DROP CONSTRAINT fittings_during_check;
ALTER TABLE fittings ADD CONSTRAINT fittings_during_check CHECK (NOT isempty(during) AND NOT lower_inf(during)) NOT VALID;
ALTER TABLE chains DROP COLUMN fate;
ALTER TABLE drives DROP COLUMN guide, DROP COLUMN wide_narrow, DROP COLUMN clutch, DROP COLUMN cage_lock,
  DROP COLUMN disc_brake;
`

export const jobs: Migration = {
  name: '0009-jobs',
  up: (run) => run(UP + SCOPED),
  down: (run) => run(DOWN),
}
