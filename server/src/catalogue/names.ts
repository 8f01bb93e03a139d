import type { PartNames } from '@pelrin/core'
import type { Work } from '../db/work.ts'

/** Systems and chains by id and name, as they can be sent to a thread. */
export interface NameLists {
  readonly systems: readonly { readonly id: string; readonly name: string }[]
  readonly chains: readonly { readonly id: string; readonly maker: string; readonly name: string }[]
}

/** @param maker whose chains are wanted: a part names its own maker's only; left out: everybody's */
export const nameLists = async (work: Work, maker?: string): Promise<NameLists> => ({
  systems: await work.select('SELECT id, name FROM drive_systems'),
  chains: await work.select(
    `SELECT id, maker, name FROM parts WHERE kind = 'chain' AND removed_at IS NULL
     ${maker === undefined ? '' : 'AND lower(maker) = lower(:maker)'}`,
    maker === undefined ? {} : { maker: maker.trim() },
  ),
})

/** Names are the same whatever their letters' case. */
export const nameKey = (...names: readonly string[]): string =>
  names.map((name) => name.trim().toLowerCase()).join('\n')

/** How the catalogue's parts name each other. */
export function partNames({
  systems,
  chains,
}: NameLists): PartNames & { addChain: (chain: NameLists['chains'][number]) => void } {
  const systemIds = new Map(systems.map(({ id, name }) => [nameKey(name), id]))
  const systemNames = new Map(systems.map(({ id, name }) => [id, name]))
  const chainIds = new Map(chains.map(({ id, maker, name }) => [nameKey(maker, name), id]))
  const chainNames = new Map(chains.map(({ id, name }) => [id, name]))
  return {
    systemId: (name) => systemIds.get(nameKey(name)),
    systemName: (id) => systemNames.get(id),
    chainId: (maker, name) => chainIds.get(nameKey(maker, name)),
    chainName: (id) => chainNames.get(id),
    addChain: ({ id, maker, name }) => {
      chainIds.set(nameKey(maker, name), id)
      chainNames.set(id, name)
    },
  }
}
