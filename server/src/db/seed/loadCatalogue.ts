import type { Work } from '../work.ts'
import type { DriveRow } from '../models/rows.ts'
import { CHAINS, DRIVE_DETAILS, JOINTS, SYSTEMS, type SystemName } from './catalogue.ts'
import { Chance } from './random.ts'
import type { DriveName } from './scenario.ts'

/** The demo shop's systems, by name. */
export type LoadedSystems = ReadonlyMap<SystemName, string>

/** Loads systems, chains and joints. By chances of its own, so that more parts leave the bikes' stories as they are. */
export async function loadCatalogue({ models, transaction }: Work, seed: number, since: Date): Promise<LoadedSystems> {
  const chance = new Chance(seed)
  const systems = new Map(SYSTEMS.map(({ name }) => [name, chance.id(since)]))
  await models.DriveSystem.bulkCreate(
    SYSTEMS.map((system) => ({ id: systems.get(system.name)!, ...system })),
    { transaction },
  )
  const ids = new Map(CHAINS.map(({ maker, name }) => [`${maker} ${name}`, chance.id(since)]))
  const idsOf = (names: readonly SystemName[]): string[] => names.map((name) => systems.get(name)!)
  const common = { reorderPoint: 1, version: 1, removedAt: null }
  await models.Part.bulkCreate(
    [
      ...CHAINS.map(({ maker, name, price, stock, ...facts }) => ({
        id: ids.get(`${maker} ${name}`)!,
        kind: 'chain' as const,
        maker,
        name,
        price,
        stock,
        facts: { ...facts, approvedFor: idsOf(facts.approvedFor), excludedFrom: idsOf(facts.excludedFrom) },
        ...common,
      })),
      ...JOINTS.map(({ kind, maker, name, price, stock, ...facts }) => ({
        id: chance.id(since),
        kind,
        maker,
        name,
        price,
        stock,
        facts: { ...facts, belongsTo: facts.belongsTo.map((chain) => ids.get(`${maker} ${chain}`)!) },
        ...common,
      })),
    ],
    { transaction },
  )
  return systems
}

/** What is known of a bike's drive beside its teeth; of some bikes nobody measured the chainstay yet. */
export function driveDetails(drive: DriveName, systems: LoadedSystems, number: number): Partial<DriveRow> {
  const { system, axleMm, chainstayMm, pulleys, ...rest } = DRIVE_DETAILS[drive]
  return {
    ...rest,
    systemId: system === undefined ? null : systems.get(system)!,
    chainstayMm: chainstayMm === undefined || number % 5 === 4 ? null : chainstayMm,
    pulleys: pulleys ? [...pulleys] : null,
    axleFromMm: axleMm?.[0] ?? null,
    axleToMm: axleMm?.[1] ?? null,
    suspension: 'rigid',
    pulleysCounted: false,
    takenOff: false,
  }
}
