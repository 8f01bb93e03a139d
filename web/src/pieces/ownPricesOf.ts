import type { OwnPrices } from '@pelrin/core'
import type { BikeRecord, OwnPrice } from '@pelrin/contract'

/** What a bike's own parts cost, in the shop's money. */
export function ownPricesOf({ ownPrices: { chain, cassette, rings } }: Pick<BikeRecord, 'ownPrices'>): OwnPrices {
  const money = (part: OwnPrice | null): number | null => (part === null ? null : part.price / 100)
  return { chain: money(chain), cassette: money(cassette), rings: money(rings) }
}
