import type { Assumptions } from '../assumptions.ts'

/** What a chain and what it runs on cost to put anew, in the shop's money. */
export interface WearPrices {
  readonly chain: number
  readonly cassette: number
  readonly rings: number
}

/** The same, as far as a bike's own parts are known with their prices. */
export type OwnPrices = { readonly [Part in keyof WearPrices]: number | null }

/** What a bike's own parts cost, and the shop's figure for what is not known of it. */
export const pricesOf = (
  own: OwnPrices,
  { chainPrice, cassettePrice, ringsPrice }: Assumptions['economics'],
): WearPrices => ({
  chain: own.chain ?? chainPrice,
  cassette: own.cassette ?? cassettePrice,
  rings: own.rings ?? ringsPrice,
})
