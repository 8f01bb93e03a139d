import type { Migration } from './migration.ts'

/** Tables whose owner may see every shop's rows while rules are added to each of them. */
const OPEN = ['shops', 'house_rules', 'house_rule_versions'] as const
const force = (how: 'FORCE' | 'NO FORCE'): string =>
  OPEN.map((table) => `ALTER TABLE ${table} ${how} ROW LEVEL SECURITY;`).join('\n')

/** A school every shop has, with its limits as it ships; shops that have it keep their own. */
const shipped = (school: string, limits: object): string => `
INSERT INTO house_rules (shop_id, id, school)
  SELECT s.id, gen_random_uuid(), '${school}' FROM shops s
  WHERE NOT EXISTS (SELECT 1 FROM house_rules r WHERE r.shop_id = s.id AND r.school = '${school}');
INSERT INTO house_rule_versions (shop_id, id, house_rule_id, version, limits, watch_share)
  SELECT r.shop_id, gen_random_uuid(), r.id, 1, '${JSON.stringify(limits)}', 0.8 FROM house_rules r
  WHERE r.school = '${school}'
    AND NOT EXISTS (SELECT 1 FROM house_rule_versions w WHERE w.shop_id = r.shop_id AND w.house_rule_id = r.id);`

const same = (limits: object): object => ({
  'derailleur-11-up': limits,
  'derailleur-to-10': limits,
  'single-or-hub': limits,
})

const UP = `
ALTER TABLE house_rules
  DROP CONSTRAINT house_rules_school_check,
  ADD CONSTRAINT house_rules_school_check CHECK (school IN
    ('by-speeds', 'half-for-all', 'early-change', 'plan-and-change', 'one-pair', 'as-marked', 'custom')),
  -- Whose change mark counts where "as marked" is the shop's own rule.
  ADD COLUMN marked_instrument_id uuid,
  ADD FOREIGN KEY (shop_id, marked_instrument_id) REFERENCES instruments (shop_id, id);
-- And where it is a customer's.
ALTER TABLE customers
  ADD COLUMN marked_instrument_id uuid,
  ADD FOREIGN KEY (shop_id, marked_instrument_id) REFERENCES instruments (shop_id, id);
-- Where sprockets are suspect by a rule of its own; null: by the physics of the drive.
ALTER TABLE house_rule_versions ADD COLUMN sprocket_marks jsonb;

ALTER TABLE instruments
  DROP CONSTRAINT instruments_kind,
  ADD CONSTRAINT instruments_kind CHECK (kind IN ('steel-rule', 'caliper', 'drop-in', 'three-contact', 'two-pin',
    'swing-arm', 'graduated', 'digital', 'full-length', 'by-hand'));

${force('NO FORCE')}
${shipped('half-for-all', same({ change: 0.5 }))}
${shipped('one-pair', same({ plan: 0.75, change: 1 }))}
${shipped('as-marked', {
  'derailleur-11-up': { change: 0.5 },
  'derailleur-to-10': { change: 0.75 },
  'single-or-hub': { change: 1 },
})}
${force('FORCE')}
`

const DOWN = `
${force('NO FORCE')}
UPDATE house_rules SET school = 'custom', name = 'Half for all' WHERE school = 'half-for-all';
UPDATE house_rules SET school = 'custom', name = 'One pair for all' WHERE school = 'one-pair';
${force('FORCE')}
UPDATE instruments SET kind = 'drop-in' WHERE kind IN ('three-contact', 'two-pin');
ALTER TABLE instruments
  DROP CONSTRAINT instruments_kind,
  ADD CONSTRAINT instruments_kind CHECK (kind IN
    ('steel-rule', 'caliper', 'drop-in', 'swing-arm', 'graduated', 'digital', 'full-length', 'by-hand'));
ALTER TABLE house_rule_versions DROP COLUMN sprocket_marks;
ALTER TABLE customers DROP COLUMN marked_instrument_id;
ALTER TABLE house_rules
  DROP COLUMN marked_instrument_id,
  DROP CONSTRAINT house_rules_school_check,
  ADD CONSTRAINT house_rules_school_check CHECK (school IN
    ('by-speeds', 'early-change', 'plan-and-change', 'as-marked', 'custom'));
`

export const schools: Migration = {
  name: '0023-schools',
  up: (run) => run(UP),
  down: (run) => run(DOWN),
}
