import type { Migration } from './migration.ts'

const UP = `
-- By which another program asks. Found by its token alone, before it is known which shop it is of.
CREATE TABLE api_tokens (
  digest bytea PRIMARY KEY,
  id uuid NOT NULL UNIQUE,
  shop_id uuid NOT NULL REFERENCES shops (id),
  name text NOT NULL,
  rights text[] NOT NULL DEFAULT '{}',
  person_id uuid NOT NULL,
  -- What it writes is written at a device of its own.
  device_id uuid NOT NULL,
  made_at timestamptz NOT NULL DEFAULT now(),
  last_used_at timestamptz,
  revoked_at timestamptz,
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
  FOREIGN KEY (shop_id, device_id) REFERENCES devices (shop_id, id)
);
CREATE INDEX api_tokens_of_shop ON api_tokens (shop_id);
`

export const apiTokens: Migration = {
  name: '0028-api-tokens',
  up: (run) => run(UP),
  down: (run) => run('DROP TABLE api_tokens'),
}
