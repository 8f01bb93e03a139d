import type { Migration } from './migration.ts'

const UP = `
-- By which schools a shop's jobs are done; the newest counts. Nothing is rewritten: a job keeps those it began with.
CREATE TABLE job_schools (
  shop_id uuid NOT NULL DEFAULT pelrin_shop() REFERENCES shops (id),
  version integer NOT NULL,
  schools jsonb NOT NULL,
  person_id uuid NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (shop_id, version),
  FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
);
ALTER TABLE job_schools ENABLE ROW LEVEL SECURITY;
ALTER TABLE job_schools FORCE ROW LEVEL SECURITY;
CREATE POLICY own_shop ON job_schools USING (shop_id = pelrin_shop()) WITH CHECK (shop_id = pelrin_shop());
`

export const jobSchools: Migration = {
  name: '0013-job-schools',
  up: (run) => run(UP),
  down: (run) => run('DROP TABLE job_schools;'),
}
