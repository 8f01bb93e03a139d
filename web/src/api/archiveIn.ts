import * as v from 'valibot'
import { sendFile } from './client.ts'

const Taken = v.object({
  tables: v.array(v.object({ name: v.string(), added: v.number(), same: v.number(), conflicts: v.number() })),
  /** The shop has only what it was born with, which makes room. */
  replaces: v.boolean(),
  /** What the archive's shop says of itself otherwise. */
  settings: v.array(v.object({ name: v.string(), here: v.unknown(), there: v.unknown() })),
})
export type TakenArchive = v.InferOutput<typeof Taken>

/**
 * Looks through an archive, or takes it in.
 *
 * @param how `apply`: it is taken in; `settings`: and the shop says of itself from now on what the archive's did
 * @returns what of each table is added, the same, or differs
 * @throws ProblemError, AwayError
 */
export async function archiveIn(
  file: File,
  how: { readonly apply: boolean; readonly settings: boolean },
  going: { signal: AbortSignal; onProgress: (share: number) => void },
): Promise<TakenArchive> {
  const query = new URLSearchParams({
    ...(how.apply ? { apply: 'yes' } : {}),
    ...(how.settings ? { settings: 'yes' } : {}),
  }).toString()
  return v.parse(Taken, await sendFile(`/archive${query === '' ? '' : `?${query}`}`, file, going))
}
