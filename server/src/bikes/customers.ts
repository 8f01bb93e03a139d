import type { CustomerLine } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { escapeLike, searchWords } from './find.ts'

const MOST = 8

/** Customers every word of whose name or phone number was typed, those whose name begins with it first. */
export async function findCustomers(work: Work, typed: string): Promise<CustomerLine[]> {
  const words = searchWords(typed)
  if (words.length === 0) return []
  const replacements = Object.fromEntries(words.map((word, i) => [`part${i}`, `%${escapeLike(word)}%`]))
  return work.select<CustomerLine>(
    `SELECT c.id, c.name, c.phone,
       coalesce((SELECT json_agg(b.label ORDER BY b.label) FROM bikes b WHERE b.customer_id = c.id AND b.gone_on IS NULL), '[]') AS bikes
     FROM customers c
     WHERE c.merged_into_id IS NULL AND c.erased_at IS NULL AND ${words.map((_, i) => `lower(unaccent(concat_ws(' ', c.name, c.phone))) LIKE :part${i}`).join(' AND ')}
     ORDER BY (lower(unaccent(c.name)) LIKE :begins) DESC, c.name, c.id LIMIT ${MOST}`,
    { ...replacements, begins: `${escapeLike(words.join(' '))}%` },
  )
}
