/**
 * What something of a shop is called outside: by a supplier, by a message gateway. Its id alone may come from a client, and another shop may hold the
 * same.
 */
export const referenceOf = (shopId: string, id: string): string => `${shopId}.${id}`

/** The id a reference of a shop names; null for another shop's. One of before references named their shop is the id itself. */
export function idOf(shopId: string, reference: string): string | null {
  const [first = '', second] = reference.split('.')
  if (second === undefined) return first
  return first === shopId ? second : null
}
