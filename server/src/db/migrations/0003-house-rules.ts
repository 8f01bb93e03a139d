import type { Migration } from './migration.ts'

const TABLES = ['assumption_versions', 'decisions'] as const

const UP = `
ALTER TABLE house_rules ADD COLUMN retired_at timestamptz;
ALTER TABLE house_rule_versions ADD COLUMN reason text;
ALTER TABLE bikes
  ADD COLUMN marked_instrument_id uuid,
  ADD FOREIGN KEY (shop_id, marked_instrument_id) REFERENCES instruments (shop_id, id);

-- A shop's own values for what is assumed. A version is never rewritten; the newest is in force.
CREATE TABLE assumption_versions (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  version integer NOT NULL,
  overrides jsonb NOT NULL,
  valid_from timestamptz NOT NULL,
  person_id uuid NOT NULL,
  reason text NOT NULL,
  PRIMARY KEY (shop_id, id),
  UNIQUE (shop_id, version),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);

-- A mechanic decided otherwise than the verdict says. Like every fact it is superseded, never changed.
CREATE TABLE decisions (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  supersedes_id uuid,
  reason text,
  deleted boolean NOT NULL DEFAULT false,
  bike_id uuid NOT NULL,
  chain_id uuid,
  fitting_id uuid,
  verdict_id uuid NOT NULL,
  overruled text NOT NULL,
  decision text NOT NULL CHECK (decision IN ('ride-on', 'spare', 'change-early')),
  PRIMARY KEY (shop_id, id),
  UNIQUE (shop_id, supersedes_id),
  CHECK (deleted OR reason IS NOT NULL),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, verdict_id) REFERENCES verdicts (shop_id, id),
  FOREIGN KEY (shop_id, supersedes_id) REFERENCES decisions (shop_id, id)
);
CREATE INDEX decisions_by_bike ON decisions (shop_id, bike_id, recorded_at);

ALTER TABLE bike_state ADD COLUMN decision_id uuid, ADD COLUMN decision text;
`

const SCOPED = TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());`,
).join('\n')

const DOWN = `
ALTER TABLE bike_state DROP COLUMN decision_id, DROP COLUMN decision;
DROP TABLE decisions, assumption_versions;
ALTER TABLE bikes DROP COLUMN marked_instrument_id;
ALTER TABLE house_rule_versions DROP COLUMN reason;
ALTER TABLE house_rules DROP COLUMN retired_at;
`

export const houseRules: Migration = {
  name: '0003-house-rules',
  outdatesState: true,
  up: (run) => run(UP + SCOPED),
  down: (run) => run(DOWN),
}
