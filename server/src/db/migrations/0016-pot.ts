import type { Migration } from './migration.ts'

const TABLES = ['pots', 'pot_chains', 'pot_events', 'bath_changes']

const UP = `
-- The shop's wax pots.
CREATE TABLE pots (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  name text NOT NULL,
  capacity integer NOT NULL CHECK (capacity BETWEEN 1 AND 40),
  on_since timestamptz,
  thermometer text,
  version integer NOT NULL DEFAULT 1,
  PRIMARY KEY (shop_id, id)
);

-- A chain's way through a session; what happened on it stands in pot_events.
CREATE TABLE pot_chains (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  chain_id uuid NOT NULL,
  bike_id uuid,
  ready_by timestamptz,
  needs text NOT NULL CHECK (needs IN ('strip', 'dry', 'nothing')),
  recipe text NOT NULL CHECK (recipe IN ('soak-and-hang', 'bubble-out', 'cool-draw')),
  condition text NOT NULL CHECK (condition IN ('clean', 'wet', 'gritty')),
  not_before timestamptz,
  state text NOT NULL DEFAULT 'waiting'
    CHECK (state IN ('waiting', 'stripping', 'drying', 'in-pot', 'hanging', 'done', 'left')),
  pot_id uuid,
  since timestamptz NOT NULL,
  added_at timestamptz NOT NULL,
  version integer NOT NULL DEFAULT 1,
  PRIMARY KEY (shop_id, id),
  CHECK (state <> 'in-pot' OR pot_id IS NOT NULL),
  FOREIGN KEY (shop_id, chain_id) REFERENCES chains (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, pot_id) REFERENCES pots (shop_id, id)
);
-- A chain is on its way once.
CREATE UNIQUE INDEX pot_chains_once ON pot_chains (shop_id, chain_id) WHERE state NOT IN ('done', 'left');
CREATE INDEX pot_chains_since ON pot_chains (shop_id, state, since DESC);

CREATE TABLE pot_events (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  pot_chain_id uuid NOT NULL,
  pot_id uuid,
  came_from text NOT NULL,
  went_to text NOT NULL,
  occurred_at timestamptz NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid NOT NULL,
  device_id uuid,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, pot_chain_id) REFERENCES pot_chains (shop_id, id),
  FOREIGN KEY (shop_id, pot_id) REFERENCES pots (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX pot_events_of_pot ON pot_events (shop_id, pot_id, occurred_at) WHERE pot_id IS NOT NULL;

CREATE TABLE bath_changes (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  pot_id uuid NOT NULL,
  occurred_at timestamptz NOT NULL,
  person_id uuid NOT NULL,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, pot_id) REFERENCES pots (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX bath_changes_of_pot ON bath_changes (shop_id, pot_id, occurred_at DESC);
${TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`,
).join('')}`

export const pot: Migration = {
  name: '0016-pot',
  up: (run) => run(UP),
  down: (run) =>
    run(
      [...TABLES]
        .reverse()
        .map((table) => `DROP TABLE ${table};`)
        .join('\n'),
    ),
}
