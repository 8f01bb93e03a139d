import type { Migration } from './migration.ts'

const UP = `
ALTER TABLE customers
  ADD COLUMN email text,
  ADD COLUMN notes text NOT NULL DEFAULT '',
  -- Entered twice: everything of theirs is the other's since.
  ADD COLUMN merged_into_id uuid,
  ADD COLUMN merged_at timestamptz,
  -- Nobody knows who they were any more.
  ADD COLUMN erased_at timestamptz,
  ADD FOREIGN KEY (shop_id, merged_into_id) REFERENCES customers (shop_id, id);
ALTER TABLE bikes ADD COLUMN weight_kg double precision CHECK (weight_kg BETWEEN 2 AND 120);

-- A bike went from one customer to another.
CREATE TABLE bike_passings (
  id uuid NOT NULL,
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  bike_id uuid NOT NULL,
  from_customer_id uuid NOT NULL,
  to_customer_id uuid NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  -- It went with all of its customer's, who was entered twice.
  merge boolean NOT NULL DEFAULT false,
  person_id uuid NOT NULL,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, bike_id) REFERENCES bikes (shop_id, id),
  FOREIGN KEY (shop_id, from_customer_id) REFERENCES customers (shop_id, id),
  FOREIGN KEY (shop_id, to_customer_id) REFERENCES customers (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE INDEX bike_passings_from ON bike_passings (shop_id, from_customer_id);
CREATE INDEX bike_passings_of ON bike_passings (shop_id, bike_id, at);
CREATE INDEX messages_of_customer ON messages (shop_id, customer_id);
ALTER TABLE bike_passings ENABLE ROW LEVEL SECURITY;
ALTER TABLE bike_passings FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON bike_passings USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());

-- The audit says that something was done, by whom and when; what it said of somebody who is erased, it says no more. By the tables' owner,
-- since the server can only add to it.
CREATE FUNCTION pelrin_forget(subjects uuid[]) RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS $$
  UPDATE audit SET detail = '{}' WHERE shop_id = pelrin_shop() AND subject_id = ANY (subjects) AND detail <> '{}';
$$;
`

const DOWN = `
DROP FUNCTION pelrin_forget(uuid[]);
DROP TABLE bike_passings;
DROP INDEX messages_of_customer;
ALTER TABLE bikes DROP COLUMN weight_kg;
ALTER TABLE customers DROP COLUMN email, DROP COLUMN notes, DROP COLUMN merged_into_id, DROP COLUMN merged_at, DROP COLUMN erased_at;
`

export const customers: Migration = {
  name: '0026-customers',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
