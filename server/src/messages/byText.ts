import { referenceOf } from '../references.ts'
import { GatewayAway, type Gateway } from './gateway.ts'
import type { Claimed, Fate } from './outgoing.ts'

/** Sends a text message under its own id: one that may be there already is asked for first. */
export async function sendByText(
  gateway: Gateway | undefined,
  shopId: string,
  { id, phone, text, tries, unwanted }: Claimed,
): Promise<Fate> {
  // The gateway was there when it was written, and is not now.
  if (!gateway) return { state: 'waiting' }
  try {
    const reference = referenceOf(shopId, id)
    if (tries > 1 && (await gateway.has(reference))) return { state: 'sent' }
    if (unwanted) return { state: 'called-off' }
    return { state: (await gateway.send({ reference, to: phone ?? '', text })) ? 'sent' : 'refused' }
  } catch (error) {
    if (error instanceof GatewayAway) return { state: 'waiting' }
    throw error
  }
}
