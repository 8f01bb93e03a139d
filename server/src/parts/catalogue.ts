import type { ChainModel, DriveSystem, JointModel } from '@pelrin/contract'
import type { PartRow } from '../db/models/rows.ts'
import type { Work } from '../db/work.ts'

/** The catalogue as parts are matched from: everything that can be had. */
export interface Catalogue {
  readonly chains: readonly ChainModel[]
  readonly joints: readonly JointModel[]
}

export async function catalogue(work: Work): Promise<Catalogue> {
  const rows = await work.select<Pick<PartRow, 'id' | 'kind' | 'maker' | 'name' | 'facts' | 'price' | 'stock'>>(
    'SELECT id, kind, maker, name, facts, price, stock FROM parts WHERE removed_at IS NULL',
  )
  const chains: ChainModel[] = []
  const joints: JointModel[] = []
  for (const { kind, facts, ...part } of rows)
    if (kind === 'chain') chains.push({ ...part, ...facts } as ChainModel)
    else joints.push({ ...part, kind, ...facts } as JointModel)
  return { chains, joints }
}

export const systems = (work: Work): Promise<DriveSystem[]> =>
  work.select<DriveSystem>(
    'SELECT id, name, flat_top AS "flatTop", large_roller AS "largeRoller" FROM drive_systems ORDER BY name',
  )
