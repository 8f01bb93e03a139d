import type { WearItemId } from '@pelrin/core'
import type { BikeRecord, OwnPrice } from '@pelrin/contract'
import type { Work } from '../db/work.ts'

/** What is on a bike beside its chain, as far as its price goes. */
interface Fitted {
  readonly item: WearItemId
  readonly name: string | null
  readonly price: number | null
  readonly to: Date | null
}

/**
 * What a bike's own parts cost: the cassette and rings that are on for what they cost when they were fitted, else by the catalogue as the
 * chain that is on, and a cassette and rings of the very teeth of its drive, those of its system before others, the cheapest of equals.
 */
export async function ownPrices(
  work: Work,
  bikeId: string,
  chainId: string | null,
  fitted: readonly Fitted[],
): Promise<BikeRecord['ownPrices']> {
  const found = await work.prepared<OwnPrice & { kind: 'chain' | 'cassette' | 'ring' }>(
    `SELECT DISTINCT ON (p.kind) p.kind, p.maker || ' ' || p.name AS name, p.price
     FROM drives d JOIN parts p ON p.price IS NOT NULL AND p.removed_at IS NULL AND CASE p.kind
         WHEN 'chain' THEN p.id = (SELECT c.part_id FROM chains c WHERE c.id = :chainId)
         WHEN 'cassette' THEN p.facts->'sprockets' = to_jsonb(d.sprockets)
         WHEN 'ring' THEN p.facts->'teeth' = to_jsonb(d.fronts) AND p.facts->'speeds' @> to_jsonb(d.speeds)
         ELSE false END
     WHERE d.bike_id = :bikeId
     ORDER BY p.kind, coalesce(p.facts->'systems' @> to_jsonb(d.system_id), false) DESC, p.price, p.id`,
    { bikeId, chainId },
  )
  const of = (kind: 'chain' | 'cassette' | 'ring'): OwnPrice | null => {
    const part = found.find((one) => one.kind === kind)
    return part ? { name: part.name, price: part.price } : null
  }
  const on = (item: 'cassette' | 'rings'): OwnPrice | null => {
    const part = fitted.find((one) => one.item === item && one.to === null)
    return part?.name != null && part.price !== null ? { name: part.name, price: part.price } : null
  }
  return { chain: of('chain'), cassette: on('cassette') ?? of('cassette'), rings: on('rings') ?? of('ring') }
}
