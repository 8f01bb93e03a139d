import type { Migration } from './migration.ts'

const TABLES = ['message_templates', 'messages', 'message_replies', 'message_cursors']

const UP = `
-- In which language a customer is written to; and from when on not at all.
ALTER TABLE customers
  ADD COLUMN language text NOT NULL DEFAULT 'en' CHECK (language ~ '^[a-z]{2}$'),
  ADD COLUMN opted_out_at timestamptz;

-- What reminders say, by language; a new wording is a new version.
CREATE TABLE message_templates (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  language text NOT NULL CHECK (language ~ '^[a-z]{2}$'),
  version integer NOT NULL,
  text text NOT NULL,
  made_at timestamptz NOT NULL,
  person_id uuid NOT NULL,
  PRIMARY KEY (shop_id, language, version),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);

-- The outbox. A message goes under its own id, so that the gateway takes it once; one of a customer and day is there once.
CREATE TABLE messages (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  id uuid NOT NULL,
  customer_id uuid NOT NULL,
  visit_day date NOT NULL,
  language text NOT NULL,
  phone text NOT NULL,
  text text NOT NULL,
  state text NOT NULL DEFAULT 'waiting'
    CHECK (state IN ('waiting', 'sending', 'sent', 'delivered', 'failed', 'refused', 'called-off')),
  tries integer NOT NULL DEFAULT 0,
  send_after timestamptz NOT NULL,
  sending_since timestamptz,
  sent_at timestamptz,
  settled_at timestamptz,
  made_at timestamptz NOT NULL,
  person_id uuid NOT NULL,
  PRIMARY KEY (shop_id, id),
  FOREIGN KEY (shop_id, customer_id) REFERENCES customers (shop_id, id),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
CREATE UNIQUE INDEX messages_one_a_visit ON messages (shop_id, customer_id, visit_day) WHERE state <> 'called-off';
CREATE INDEX messages_to_send ON messages (shop_id, send_after) WHERE state IN ('waiting', 'sending');
CREATE INDEX messages_made ON messages (shop_id, made_at DESC);

CREATE TABLE message_replies (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  number integer NOT NULL,
  customer_id uuid NOT NULL,
  text text NOT NULL,
  heard_at timestamptz NOT NULL,
  PRIMARY KEY (shop_id, number),
  FOREIGN KEY (shop_id, customer_id) REFERENCES customers (shop_id, id)
);

-- The last thing a shop heard of its gateway.
CREATE TABLE message_cursors (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  heard integer NOT NULL,
  PRIMARY KEY (shop_id)
);
${TABLES.map(
  (table) => `
ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON ${table} USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`,
).join('')}`

const DOWN = `
${[...TABLES]
  .reverse()
  .map((table) => `DROP TABLE ${table};`)
  .join('\n')}
ALTER TABLE customers DROP COLUMN language, DROP COLUMN opted_out_at;
`

export const messages: Migration = {
  name: '0018-messages',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
