/**
 * SQL: whether nobody but an apprentice has looked at a row yet.
 *
 * @param person alias of who wrote it
 * @param row alias of the row
 */
export const unlooked = (kind: 'reading' | 'care', person: string, row: string): string =>
  `(${person}.role = 'apprentice' AND NOT EXISTS (SELECT 1 FROM looks k WHERE k.subject_kind = '${kind}' AND k.subject_id = ${row}.id))`
