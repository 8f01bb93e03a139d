/** A part as it is paid for. */
export interface PaidPart {
  readonly quantity: number
  /** Of one; null where the catalogue has none. */
  readonly price: number | null
}

/** What one line comes to, minor units; null where its price is not known. */
export const linePrice = ({ price, quantity }: PaidPart): number | null => (price === null ? null : price * quantity)

/** What lines come to, minor units; null where a price is not known. */
export const linesPrice = (lines: readonly PaidPart[]): number | null =>
  lines.reduce<number | null>((sum, line) => {
    const price = linePrice(line)
    return sum === null || price === null ? null : sum + price
  }, 0)

/** How many pieces lines are, all together. */
export const piecesIn = (lines: readonly Pick<PaidPart, 'quantity'>[]): number =>
  lines.reduce((sum, { quantity }) => sum + quantity, 0)

/** What a job costs, in minor units of the shop's money. */
export interface JobCost {
  readonly labour: number
  /** Null where a price is missing. */
  readonly parts: number | null
  readonly total: number | null
}

/**
 * What a job costs: its minutes at the shop's hour, and its parts.
 *
 * @param minutes standard minutes before, those taken after; 0 or more
 * @param hourPrice of an hour at the stand, minor units
 * @throws RangeError for less than no time
 */
export function jobCost({
  minutes,
  hourPrice,
  parts,
}: {
  readonly minutes: number
  readonly hourPrice: number
  readonly parts: readonly PaidPart[]
}): JobCost {
  if (!(minutes >= 0)) throw new RangeError(`nobody works ${minutes} minutes`)
  const labour = Math.round((minutes / 60) * hourPrice)
  const paid = linesPrice(parts)
  return { labour, parts: paid, total: paid === null ? null : labour + paid }
}
