import * as v from 'valibot'
import { sendFile } from './client.ts'

const Taken = v.object({
  tables: v.array(v.object({ name: v.string(), added: v.number(), same: v.number(), conflicts: v.number() })),
})
export type TakenTable = v.InferOutput<typeof Taken>['tables'][number]

/**
 * Looks through an archive, or takes it in.
 *
 * @returns what of each table is added, the same, or differs
 * @throws ProblemError, AwayError
 */
export async function archiveIn(
  file: File,
  apply: boolean,
  going: { signal: AbortSignal; onProgress: (share: number) => void },
): Promise<TakenTable[]> {
  return v.parse(Taken, await sendFile(`/archive${apply ? '?apply=yes' : ''}`, file, going)).tables
}
