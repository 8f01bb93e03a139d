import type { Migration } from './migration.ts'

const KINDS = ['tick', 'untick', 'outcome', 'outcome-back', 'choice', 'note', 'take-over', 'pause', 'resume']
const list = (all: readonly string[]): string => all.map((one) => `'${one}'`).join(', ')
const kinds = (all: readonly string[]): string => `
ALTER TABLE job_events DROP CONSTRAINT job_events_kind_check;
ALTER TABLE job_events ADD CONSTRAINT job_events_kind_check CHECK (kind IN (${list(all)}));`
const CLEANINGS = ['wipe', 'rinse', 'on-bike', 'soak', 'boil', 'strip']
const cleanings = (all: readonly string[]): string => `
ALTER TABLE care_events DROP CONSTRAINT care_events_cleaning_check;
ALTER TABLE care_events ADD CONSTRAINT care_events_cleaning_check CHECK (cleaning IN (${list(all)}));`
/** Every shop's, which the policies would hide. */
const everyShops = (table: string, sql: string): string => `
ALTER TABLE ${table} NO FORCE ROW LEVEL SECURITY;
${sql}
ALTER TABLE ${table} FORCE ROW LEVEL SECURITY;`
const renamed = (from: string, to: string): string =>
  everyShops(
    'job_events',
    `UPDATE job_events SET detail = jsonb_set(detail, '{step}', '"${to}"') WHERE detail ->> 'step' = '${from}';`,
  )

const UP = `
-- What was typed or chosen at a step, or why nothing was.
${kinds([...KINDS, 'entered', 'left-out'])}
${renamed('convert-old', 'outer-out')}
${cleanings([...CLEANINGS, 'box', 'ultrasonic'])}
-- What a joint was closed for, where that is a fact of its own: taken back with it.
ALTER TABLE joint_events ADD COLUMN because_id uuid;
CREATE INDEX joint_events_because ON joint_events (shop_id, because_id) WHERE because_id IS NOT NULL;
-- Each pot is a vessel of its own: how it heats, how long that takes and when it rings. Null: as the house has it.
ALTER TABLE pots
  ADD COLUMN vessel text NOT NULL DEFAULT 'thermostat' CHECK (vessel IN ('slow-cooker', 'thermostat', 'bag')),
  ADD COLUMN heat_minutes integer CHECK (heat_minutes BETWEEN 0 AND 240),
  ADD COLUMN alarm_celsius double precision CHECK (alarm_celsius BETWEEN 60 AND 150);
-- When a chain that was waxed went back on its bike; null: it hangs and waits.
ALTER TABLE pot_chains ADD COLUMN back_on_at timestamptz;
CREATE INDEX pot_chains_hung ON pot_chains (shop_id, chain_id, since DESC) WHERE state = 'done' AND back_on_at IS NULL;
-- What is long done is not waiting for anybody.
${everyShops('pot_chains', "UPDATE pot_chains SET back_on_at = since WHERE state = 'done';")}
-- By which recipe a bike's chains are waxed; null: as the house does it.
ALTER TABLE bikes ADD COLUMN wax_recipe text CHECK (wax_recipe IN ('soak-and-hang', 'bubble-out', 'cool-draw'));
`

const DOWN = `
ALTER TABLE bikes DROP COLUMN wax_recipe;
DROP INDEX pot_chains_hung;
ALTER TABLE pot_chains DROP COLUMN back_on_at;
ALTER TABLE pots DROP COLUMN vessel, DROP COLUMN heat_minutes, DROP COLUMN alarm_celsius;
DROP INDEX joint_events_because;
ALTER TABLE joint_events DROP COLUMN because_id;
${everyShops(
  'care_events',
  `UPDATE care_events SET cleaning = CASE cleaning WHEN 'box' THEN 'on-bike' ELSE 'strip' END
   WHERE cleaning IN ('box', 'ultrasonic');`,
)}
${cleanings(CLEANINGS)}
${renamed('outer-out', 'convert-old')}
${everyShops('job_events', "DELETE FROM job_events WHERE kind IN ('entered', 'left-out');")}
${kinds(KINDS)}
`

export const joining: Migration = { name: '0032-joining', up: (run) => run(UP), down: (run) => run(DOWN) }
