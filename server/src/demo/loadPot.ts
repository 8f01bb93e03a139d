import { STAND_IN } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { Chance } from './random.ts'
import type { ChainRow, FittingRow } from '../chains/models.ts'
import { BATH_CHANGES, POTS, POT_CHAINS, POT_EVENTS, type PotChainRow, type PotEventRow } from '../pot/models.ts'

const DAY = 86_400_000
const HOUR = 3_600_000
/** What has gone through the pot since its wax was changed, and how long ago that was. */
const DIPPED = 37
const CHANGED_DAYS = 48
/** Hours after opening that today's chains are wanted by; null: whenever. */
const WANTED: readonly (number | null)[] = [4.5, 4.5, 5.5, 7, 8, null, null]

/** Loads the wax pot: its bath so far, and the chains that wait for today's session. */
export async function loadPot(
  { of, transaction, now }: Work,
  seed: number,
  chains: readonly Partial<ChainRow>[],
  fittings: readonly Partial<FittingRow>[],
  peopleIds: readonly string[],
): Promise<void> {
  const chance = new Chance(seed)
  const potId = chance.id(now)
  const personId = peopleIds[0]!
  await of(POTS).create(
    { id: potId, name: 'Copper', capacity: 4, onSince: null, thermometer: STAND_IN, version: 1 },
    { transaction },
  )
  const changedAt = new Date(now.getTime() - CHANGED_DAYS * DAY)
  await of(BATH_CHANGES).create({ id: chance.id(changedAt), potId, occurredAt: changedAt, personId }, { transaction })
  const on = new Map(
    fittings.filter(({ during }) => during![1].value === null).map(({ chainId, bikeId }) => [chainId!, bikeId!]),
  )
  const waxed = chains.filter(
    ({ id, care, homeBikeId }) => care === 'immersion-wax' && (on.has(id!) || homeBikeId != null),
  )
  const rows: PotChainRow[] = []
  const events: PotEventRow[] = []
  const add = (chain: Partial<ChainRow>, at: Date, more: Partial<PotChainRow>): PotChainRow => {
    const row: PotChainRow = {
      id: chance.id(at),
      chainId: chain.id!,
      bikeId: on.get(chain.id!) ?? chain.homeBikeId ?? null,
      readyBy: null,
      needs: 'nothing',
      recipe: 'soak-and-hang',
      condition: chance.pick(['clean', 'clean', 'clean', 'wet', 'gritty'] as const),
      notBefore: null,
      state: 'waiting',
      potId: null,
      since: at,
      addedAt: at,
      backOnAt: null,
      version: 1,
      ...more,
    }
    rows.push(row)
    return row
  }
  for (let i = 0; i < DIPPED; i++) {
    const at = new Date(changedAt.getTime() + ((i + 1) / (DIPPED + 1)) * (CHANGED_DAYS - 2) * DAY)
    const { id } = add(waxed[i % waxed.length]!, at, {
      state: 'done',
      potId,
      // The last one waxed hangs and waits for its rider.
      backOnAt: i === DIPPED - 1 ? null : new Date(at.getTime() + 3 * HOUR),
    })
    events.push({
      id: chance.id(at),
      potChainId: id,
      potId,
      cameFrom: 'waiting',
      wentTo: 'in-pot',
      occurredAt: at,
      recordedAt: at,
      personId,
      deviceId: null,
    })
  }
  const twins = waxed.filter(({ id }) => !on.has(id!))
  const session = [...twins, ...waxed.filter(({ id }) => on.has(id!))].slice(0, WANTED.length).reverse()
  for (const [i, chain] of session.entries()) {
    const hours = WANTED[i] ?? null
    add(chain, new Date(now.getTime() + i), {
      readyBy: hours === null ? null : new Date(now.getTime() + hours * HOUR),
      ...(i === 1 ? { needs: 'strip' as const } : {}),
      ...(i === 3 ? { recipe: 'cool-draw' as const } : {}),
    })
  }
  await of(POT_CHAINS).bulkCreate(rows, { transaction })
  await of(POT_EVENTS).bulkCreate(events, { transaction })
}
