import type { Migration } from './migration.ts'

const UP = `
-- What a bike shows on any day follows from dates: until when its round is present, from when it is to be measured whatever
-- its verdict said, and on which days its forecast reaches which chance of being over.
DROP INDEX bike_state_due;
DROP INDEX bike_state_by_trouble;
ALTER TABLE bike_state
  DROP COLUMN due_on,
  DROP COLUMN trouble_rank,
  DROP COLUMN trouble_on,
  ADD COLUMN present_until date,
  ADD COLUMN measure_from date,
  ADD COLUMN outlook_from date,
  ADD COLUMN outlook_reached int[],
  -- The day a change that stands was measured; null where none does.
  ADD COLUMN change_on date;
ALTER TABLE bike_state ADD COLUMN due_on date GENERATED ALWAYS AS
  (LEAST(check_on, measure_from, care_on, wear_on, change_on)) STORED;
CREATE INDEX bike_state_due ON bike_state (shop_id, due_on, bike_id) WHERE due_on IS NOT NULL;
CREATE INDEX bike_state_measure ON bike_state (shop_id, measure_from, bike_id) WHERE measure_from IS NOT NULL;

-- The core's chanceByDay: between the days an outlook keeps in a straight line.
CREATE FUNCTION pelrin_chance_by(days int, reached int[]) RETURNS double precision
LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  WITH kept AS (
    SELECT ARRAY[0.01, 0.02, 0.04, 0.06, 0.08, 0.1, 0.15, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5, 0.55, 0.6, 0.65, 0.7,
      0.75, 0.8, 0.85, 0.9, 0.95, 0.98]::double precision[] AS chance,
      CASE WHEN cardinality(reached) = 0 THEN 0 ELSE width_bucket(days, reached) END AS i
  ), between_ AS (
    SELECT chance, i, CASE WHEN i = 0 THEN 0 ELSE reached[i] END AS from_day,
      CASE WHEN i = 0 THEN 0 ELSE chance[i] END AS from_chance
    FROM kept
  )
  SELECT CASE WHEN reached IS NULL THEN NULL
    WHEN i >= cardinality(reached) THEN from_chance
    ELSE from_chance + (chance[i + 1] - from_chance) * greatest(0, days - from_day) / (reached[i + 1] - from_day) END
  FROM between_
$$;
`

const DOWN = `
DROP FUNCTION pelrin_chance_by(int, int[]);
DROP INDEX bike_state_due;
DROP INDEX bike_state_measure;
ALTER TABLE bike_state
  DROP COLUMN due_on,
  DROP COLUMN present_until,
  DROP COLUMN measure_from,
  DROP COLUMN outlook_from,
  DROP COLUMN outlook_reached,
  DROP COLUMN change_on,
  ADD COLUMN trouble_rank smallint NOT NULL DEFAULT 2,
  ADD COLUMN trouble_on date NOT NULL DEFAULT '2000-01-01';
UPDATE bike_state SET trouble_rank = CASE word WHEN 'change' THEN 0 WHEN 'measure-again' THEN 1 ELSE 2 END,
  trouble_on = coalesce(check_on, measured_at::date, '2000-01-01');
ALTER TABLE bike_state ALTER COLUMN trouble_rank DROP DEFAULT, ALTER COLUMN trouble_on DROP DEFAULT;
ALTER TABLE bike_state ADD COLUMN due_on date GENERATED ALWAYS AS
  (LEAST(check_on, care_on, wear_on, CASE WHEN word = 'change' THEN trouble_on END)) STORED;
CREATE INDEX bike_state_due ON bike_state (shop_id, due_on, bike_id) WHERE due_on IS NOT NULL;
CREATE INDEX bike_state_by_trouble ON bike_state (shop_id, trouble_rank, trouble_on, bike_id);
`

export const standing: Migration = {
  name: '0022-standing',
  outdatesState: true,
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
