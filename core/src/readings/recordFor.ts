/**
 * An instrument's record as it holds for a reading: a customer reads with a tool of their own, of which nothing is known but
 * its kind, so that no bias found of the shop's is taken off.
 *
 * @param record of the shop's instrument of that kind; `source` whose reading it is
 */
export const recordFor = <Known extends { readonly bias: number; readonly biasU: number }>(
  record: Known,
  source: 'shop' | 'customer',
): Known => (source === 'shop' ? record : { ...record, bias: 0, biasU: 0 })
