import type { BikeSummary } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { STANDING_ORDER, STANDING_RANK } from '../standing/standing.ts'
import { summaries } from './summaries.ts'

/** How alike a mistyped word must be to part of what it is to find. */
const ALIKE = 0.4
/** Words shorter than this are taken as typed: two wrong letters in three find anything. */
const SHORTEST_FORGIVEN = 4
/** From this length on one slip is looked through, wherever it is. */
const SHORTEST_SLIPPED = 5
const MOST_WORDS = 6

/** Lower-case words without accents, as search texts are kept; at most six. */
export function searchWords(text: string): string[] {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '')
    .slice(0, MOST_WORDS)
}

/** A word as LIKE takes it for itself. */
export const escapeLike = (word: string): string => word.replace(/[\\%_]/g, (sign) => `\\${sign}`)

/** A letter of a word, whatever it is. */
const ANY = '[^ ]'

/**
 * A pattern for the words a word may have been meant for, where one slip was made in typing it: two letters swapped, one
 * missing, one doubled or too many, one wrong. At the beginning of a word, so that the middle of another is not taken for it.
 *
 * @param word lower case, letters only
 */
export function slipsOf(word: string): string {
  const at = (i: number, put: string, taken: number): string => word.slice(0, i) + put + word.slice(i + taken)
  const places = Array.from({ length: word.length }, (_, i) => i)
  const variants = [
    ...places.slice(1).map((i) => at(i - 1, word[i]! + word[i - 1]!, 2)),
    ...places.map((i) => at(i, '', 1)),
    ...places.map((i) => at(i, ANY, 1)),
    ...places.slice(1).map((i) => at(i, ANY, 0)),
  ]
  return ` (${[...new Set(variants)].join('|')})`
}

const forgives = (word: string): boolean => word.length >= SHORTEST_SLIPPED && /^\p{L}+$/u.test(word)

/**
 * A condition every word must meet on `s.search_text`, with its replacements: contained as typed, or, for longer
 * words, one slip away from a word of it or alike to part of it.
 */
export async function textCondition(
  work: Work,
  text: string,
): Promise<{ condition: string; replacements: Record<string, string> }> {
  const words = searchWords(text)
  await work.select(`SELECT set_config('pg_trgm.word_similarity_threshold', '${ALIKE}', true)`)
  const replacements: Record<string, string> = {}
  const conditions = words.map((word, i) => {
    replacements[`part${i}`] = `%${escapeLike(word)}%`
    replacements[`word${i}`] = word
    const asTyped = `s.search_text LIKE :part${i}`
    // A tag or frame mark that is nearly right is another bike's.
    if (word.length < SHORTEST_FORGIVEN || /\d/.test(word)) return asTyped
    const alike = `${asTyped} OR :word${i} <% s.search_text`
    if (!forgives(word)) return `(${alike})`
    replacements[`slip${i}`] = slipsOf(word)
    return `(${alike} OR ' ' || s.search_text ~ :slip${i})`
  })
  return { condition: conditions.length === 0 ? 'true' : conditions.join(' AND '), replacements }
}

/** Bikes that match what was typed, the likeliest first: tag as typed, then words as typed, their beginnings, one slip away, then likeness. */
export async function findBikes(work: Work, text: string, most = 8): Promise<BikeSummary[]> {
  const words = searchWords(text)
  if (words.length === 0) return []
  const { condition, replacements } = await textCondition(work, text)
  const asTyped = words.map((_, i) => `(s.search_text LIKE :part${i})::int`).join(' + ')
  const slipped = words
    .map((word, i) => (forgives(word) ? `(' ' || s.search_text ~ :slip${i})::int` : 'false::int'))
    .join(' + ')
  const begins = words.map((_, i) => `(' ' || s.search_text LIKE :begin${i})::int`).join(' + ')
  words.forEach((word, i) => (replacements[`begin${i}`] = `% ${escapeLike(word)}%`))
  return summaries(
    work,
    `WHERE b.merged_into_id IS NULL AND ((${condition}) OR b.id IN (SELECT m.merged_into_id FROM bikes m WHERE lower(m.tag) = :whole))
     ORDER BY (lower(b.tag) = :whole) DESC, (${asTyped}) DESC, (${begins}) DESC, (${slipped}) DESC, word_similarity(:whole, s.search_text) DESC,
       ${STANDING_RANK}, ${STANDING_ORDER}, b.id
     LIMIT :most`,
    { ...replacements, whole: words.join(' '), most },
  )
}
