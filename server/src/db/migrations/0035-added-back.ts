import type { Migration } from './migration.ts'

const kinds = (all: readonly string[]): string => `
ALTER TABLE chain_events DROP CONSTRAINT chain_events_kind_check;
ALTER TABLE chain_events ADD CONSTRAINT chain_events_kind_check CHECK (kind IN (${all.map((one) => `'${one}'`).join(', ')}));`

const UP = `
${kinds(['cut', 'shortened', 'rejoined', 'lengthened'])}
-- What a chain's count changed for, where that is a fact of its own: the break its pitches were put back after.
ALTER TABLE chain_events ADD COLUMN because_id uuid;
CREATE INDEX chain_events_because ON chain_events (shop_id, because_id) WHERE because_id IS NOT NULL;
-- Mended for the way home only.
ALTER TABLE mends ADD COLUMN roadside boolean NOT NULL DEFAULT false;
`

const DOWN = `
ALTER TABLE mends DROP COLUMN roadside;
DROP INDEX chain_events_because;
ALTER TABLE chain_events DROP COLUMN because_id;
-- A count that grew is one the chain was rejoined at; every shop's, which the policies would hide.
ALTER TABLE chain_events NO FORCE ROW LEVEL SECURITY;
UPDATE chain_events SET kind = 'rejoined' WHERE kind = 'lengthened';
ALTER TABLE chain_events FORCE ROW LEVEL SECURITY;
${kinds(['cut', 'shortened', 'rejoined'])}
`

export const addedBack: Migration = { name: '0035-added-back', up: (run) => run(UP), down: (run) => run(DOWN) }
