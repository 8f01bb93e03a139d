import type { Migration } from './migration.ts'

const UP = `
-- By which server the shop's mail goes. Its password is sealed with a key that is not in the database.
CREATE TABLE mail_settings (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  version integer NOT NULL,
  is_on boolean NOT NULL,
  host text NOT NULL,
  port integer NOT NULL CHECK (port BETWEEN 1 AND 65535),
  security text NOT NULL CHECK (security IN ('tls', 'starttls', 'none')),
  user_name text,
  password_sealed text,
  from_name text NOT NULL,
  from_address text NOT NULL,
  -- Where customers reach this server, for the link by which they are written to no more.
  public_address text NOT NULL,
  -- What the server said when mail last did not go by it, and when.
  trouble text,
  trouble_at timestamptz,
  PRIMARY KEY (shop_id)
);
ALTER TABLE mail_settings ENABLE ROW LEVEL SECURITY;
ALTER TABLE mail_settings FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON mail_settings USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());

ALTER TABLE messages
  ADD COLUMN channel text NOT NULL DEFAULT 'text' CHECK (channel IN ('text', 'mail')),
  ADD COLUMN email text,
  -- The bikes it is about, whose sheets go along.
  ADD COLUMN bike_ids uuid[] NOT NULL DEFAULT '{}',
  -- Since when the mail server may have it: what comes to a stop after this is not sent again by itself.
  ADD COLUMN handed_at timestamptz,
  -- What the other side said of it, word for word.
  ADD COLUMN said text,
  ALTER COLUMN phone DROP NOT NULL,
  ADD CONSTRAINT messages_reach CHECK (CASE channel WHEN 'text' THEN phone ELSE email END IS NOT NULL),
  DROP CONSTRAINT messages_state_check,
  ADD CONSTRAINT messages_state_check
    CHECK (state IN ('waiting', 'sending', 'sent', 'delivered', 'failed', 'refused', 'called-off', 'unsure'));

ALTER TABLE customers
  -- By which of the two they want to be reached; null: by mail where there is an address.
  ADD COLUMN reached_by text CHECK (reached_by IN ('text', 'mail')),
  -- The address mail came back from.
  ADD COLUMN email_refused text;
`

const DOWN = `
ALTER TABLE customers DROP COLUMN reached_by, DROP COLUMN email_refused;
DELETE FROM messages WHERE channel = 'mail';
UPDATE messages SET state = 'failed' WHERE state = 'unsure';
ALTER TABLE messages
  DROP CONSTRAINT messages_reach,
  DROP CONSTRAINT messages_state_check,
  DROP COLUMN channel, DROP COLUMN email, DROP COLUMN bike_ids, DROP COLUMN handed_at, DROP COLUMN said,
  ALTER COLUMN phone SET NOT NULL,
  ADD CONSTRAINT messages_state_check
    CHECK (state IN ('waiting', 'sending', 'sent', 'delivered', 'failed', 'refused', 'called-off'));
DROP TABLE mail_settings;
`

export const mail: Migration = {
  name: '0029-mail',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
