import type { Secrets } from '../secrets.ts'

/** Whose messages an address stops. */
export interface Stopped {
  readonly shopId: string
  readonly customerId: string
}

const UUID_BYTES = 16
const SEAL_BYTES = 16
const FOR = 'stop messages'

const bytesOf = (uuid: string): Buffer => Buffer.from(uuid.replaceAll('-', ''), 'hex')
const uuidOf = (bytes: Buffer): string =>
  bytes.toString('hex').replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')

/** The address by which a customer has no more messages, without signing in: it says whose they are, sealed so that nobody makes another's. */
export function stopLink(publicAddress: string, secrets: Secrets, { shopId, customerId }: Stopped): string {
  const whose = Buffer.concat([bytesOf(shopId), bytesOf(customerId)])
  const token = Buffer.concat([whose, secrets.sign(FOR, whose).subarray(0, SEAL_BYTES)])
  return `${publicAddress}/stop/${token.toString('base64url')}`
}

/** Whose messages a token of such an address stops; null for one that was not made here. */
export function stoppedBy(secrets: Secrets, token: string): Stopped | null {
  const bytes = Buffer.from(token, 'base64url')
  if (bytes.length !== 2 * UUID_BYTES + SEAL_BYTES) return null
  const whose = bytes.subarray(0, 2 * UUID_BYTES)
  if (!secrets.signed(FOR, whose, bytes.subarray(2 * UUID_BYTES))) return null
  return { shopId: uuidOf(whose.subarray(0, UUID_BYTES)), customerId: uuidOf(whose.subarray(UUID_BYTES)) }
}
