import { FEWEST_TEETH } from './loop.ts'

/** Why numbers of teeth cannot be. Keys of the message catalogue. */
export type TeethProblem = 'teeth-few' | 'teeth-many' | 'teeth-malformed'
export type TeethOrderProblem = 'sprockets-order' | 'sprocket-twice'

const MOST_TEETH = 80

/** @returns null where a chain could run over every one of them */
export function teethProblem(teeth: readonly number[]): TeethProblem | null {
  if (!teeth.every((one) => Number.isInteger(one))) return 'teeth-malformed'
  if (teeth.some((one) => one < FEWEST_TEETH)) return 'teeth-few'
  return teeth.some((one) => one > MOST_TEETH) ? 'teeth-many' : null
}

/** A cassette may be given either way round, but in one. */
export function teethOrderProblem(sprockets: readonly number[]): TeethOrderProblem | null {
  if (new Set(sprockets).size < sprockets.length) return 'sprocket-twice'
  const ascending = sprockets.every((one, i) => i === 0 || one > sprockets[i - 1]!)
  const descending = sprockets.every((one, i) => i === 0 || one < sprockets[i - 1]!)
  return ascending || descending ? null : 'sprockets-order'
}
