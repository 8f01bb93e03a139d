import type { Work } from '../db/work.ts'
import { CASSETTES, CHAINS, DERAILLEURS, JOINTS, RINGS, SUPPLIES, SYSTEMS, type SystemName } from './catalogue.ts'
import { Chance } from './random.ts'
import { PARTS, type PartRow } from '../catalogue/models.ts'
import { DRIVE_SYSTEMS } from '../parts/models.ts'
import { STOCK_MOVEMENTS } from '../stock/models.ts'

/** What of the demo shop's catalogue its bikes are described by. */
export interface LoadedCatalogue {
  readonly systems: ReadonlyMap<SystemName, string>
  /** Chains by maker and name. */
  readonly chains: ReadonlyMap<string, string>
  readonly parts: readonly PartRow[]
}

type Drafted = Pick<PartRow, 'id' | 'kind' | 'maker' | 'name' | 'price' | 'stock' | 'facts'>

/**
 * Loads systems and the catalogue, its stock counted when the shop began. By chances of its own, so that more parts leave
 * the bikes' stories as they are.
 */
export async function loadCatalogue(
  { of, transaction }: Work,
  seed: number,
  since: Date,
  personId: string,
): Promise<LoadedCatalogue> {
  const chance = new Chance(seed)
  const systems = new Map(SYSTEMS.map(({ name }) => [name, chance.id(since)]))
  await of(DRIVE_SYSTEMS).bulkCreate(
    SYSTEMS.map((system) => ({ id: systems.get(system.name)!, ...system })),
    { transaction },
  )
  const chains = new Map(CHAINS.map(({ maker, name }) => [`${maker} ${name}`, chance.id(since)]))
  const idsOf = (names: readonly SystemName[]): string[] => names.map((name) => systems.get(name)!)
  const drafted: Drafted[] = [
    ...CHAINS.map(({ maker, name, price, stock, ...facts }) => ({
      id: chains.get(`${maker} ${name}`)!,
      kind: 'chain' as const,
      maker,
      name,
      price,
      stock,
      facts: { ...facts, approvedFor: idsOf(facts.approvedFor), excludedFrom: idsOf(facts.excludedFrom) },
    })),
    ...JOINTS.map(({ kind, maker, name, price, stock, ...facts }) => ({
      id: chance.id(since),
      kind,
      maker,
      name,
      price,
      stock,
      facts: { ...facts, systems: [], belongsTo: facts.belongsTo.map((chain) => chains.get(`${maker} ${chain}`)!) },
    })),
    ...(
      [
        ['cassette', CASSETTES],
        ['ring', RINGS],
        ['derailleur', DERAILLEURS],
      ] as const
    ).flatMap(([kind, planned]) =>
      planned.map(({ maker, name, price, stock, ...facts }) => ({
        id: chance.id(since),
        kind,
        maker,
        name,
        price,
        stock,
        facts: 'systems' in facts ? { ...facts, systems: idsOf(facts.systems) } : facts,
      })),
    ),
  ]
  for (const { kind, maker, name, price, stock, facts } of SUPPLIES)
    drafted.push({ id: chance.id(since), kind, maker, name, price, stock, facts })
  const parts = drafted.map((part): PartRow => ({
    ...part,
    // What goes over the counter often is wanted in the drawer; a derailleur is ordered when somebody needs one.
    reorderPoint: part.kind === 'chain' || part.kind === 'link' ? 1 : 0,
    version: 1,
    removedAt: null,
  }))
  await of(PARTS).bulkCreate(parts, { transaction })
  await of(STOCK_MOVEMENTS).bulkCreate(
    parts
      .filter(({ stock }) => stock > 0)
      .map(({ id, stock }) => ({
        id: chance.id(since),
        partId: id,
        kind: 'counted' as const,
        change: stock,
        stockAfter: stock,
        orderId: null,
        keptId: null,
        note: null,
        occurredAt: since,
        recordedAt: since,
        personId,
        deviceId: null,
      })),
    { transaction },
  )
  return { systems, chains, parts }
}
