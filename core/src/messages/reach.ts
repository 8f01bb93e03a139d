/** By what customers are written to. */
export const CHANNELS = ['text', 'mail'] as const
export type Channel = (typeof CHANNELS)[number]

/** How a customer can be reached, and by which of the two they want to be; null: they said nothing. */
export interface Reachable {
  readonly phone: string | null
  readonly email: string | null
  /** The address mail came back from, if any: none goes there until it is corrected. */
  readonly emailRefused: string | null
  readonly reachedBy: Channel | null
}

/** What the shop can send by. */
export type Sending = Readonly<Record<Channel, boolean>>

/** Why a customer cannot be written to. */
export type Unreachable = 'no-phone' | 'no-mail' | 'mail-refused' | 'no-way' | 'no-gateway' | 'no-mail-service'

/**
 * By what a customer is written to: as they asked; who said nothing by mail where that can go, which costs nothing and takes the sheet along,
 * else by text message.
 */
export function reachOf(
  customer: Reachable,
  sending: Sending,
): { readonly channel: Channel } | { readonly problem: Unreachable } {
  const troubles: Readonly<Record<Channel, Unreachable | null>> = {
    text: customer.phone === null ? 'no-phone' : sending.text ? null : 'no-gateway',
    mail: mailTrouble(customer, sending),
  }
  if (customer.reachedBy !== null) {
    const problem = troubles[customer.reachedBy]
    return problem === null ? { channel: customer.reachedBy } : { problem }
  }
  if (troubles.mail === null) return { channel: 'mail' }
  if (troubles.text === null) return { channel: 'text' }
  // Of what the shop has, what this customer lacks; with both, one of the two would do.
  if (sending.mail && troubles.mail === 'mail-refused') return { problem: 'mail-refused' }
  if (sending.mail && sending.text) return { problem: 'no-way' }
  return { problem: sending.mail ? troubles.mail : troubles.text }
}

function mailTrouble({ email, emailRefused }: Reachable, sending: Sending): Unreachable | null {
  if (email === null) return 'no-mail'
  if (!sending.mail) return 'no-mail-service'
  return email === emailRefused ? 'mail-refused' : null
}
