import { sentenceOf, PlainError } from './plain.ts'
import { prepareDatabase, type DatabaseUrls, type Prepared } from './prepareDatabase.ts'

/** What the program is told. */
export interface PrepareAsked {
  readonly urls: DatabaseUrls
  readonly demo: boolean
}
/** What it tells: what the database has in it, or why it could not be made ready. */
export type PrepareTold = { readonly prepared: Prepared } | { readonly failed: string; readonly plain: boolean }

/** Makes a database ready, as a program that ends with it: what that takes of memory is given back, and whoever watches stays small. */
process.once('message', (asked: PrepareAsked) => {
  prepareDatabase(asked.urls, asked.demo)
    .then(
      (prepared): PrepareTold => ({ prepared }),
      (error: unknown): PrepareTold => ({ failed: sentenceOf(error), plain: error instanceof PlainError }),
    )
    .then((told) => process.send?.(told, () => process.exit(0)))
    .catch(() => process.exit(1))
})
process.on('disconnect', () => process.exit(1))
