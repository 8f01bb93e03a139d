import type { Work } from '../db/work.ts'
import { CHAINS, type ChainRow } from './models.ts'

/** Says where a chain is once it went on or came off: a change of it like any other, so that an older page of it is told. */
export async function setAside(
  work: Work,
  chainId: string,
  { fate, homeBikeId }: Pick<ChainRow, 'fate' | 'homeBikeId'>,
): Promise<void> {
  const row = await work.of(CHAINS).findByPk(chainId, { transaction: work.transaction, rejectOnEmpty: true })
  await row.update({ fate, homeBikeId, version: row.version + 1 }, { transaction: work.transaction })
}
