import { createCipheriv, createDecipheriv, createHmac, randomBytes, timingSafeEqual } from 'node:crypto'

const VERSION = 'v1'
const KEY_BYTES = 32
const IV_BYTES = 12
const TAG_BYTES = 16

/** Keeps what opens something elsewhere so that the database alone, or a backup of it, does not tell it. AES-256-GCM. */
export class Secrets {
  private readonly key: Buffer

  /** @param key 32 bytes as base64url. @throws Error for one that is none */
  constructor(key: string) {
    this.key = Buffer.from(key, 'base64url')
    if (this.key.length !== KEY_BYTES) throw new Error('SECRET_KEY is not 32 bytes as base64url.')
  }

  /** A key for as long as this process lives, for tests. */
  static passing(): Secrets {
    return new Secrets(randomBytes(KEY_BYTES).toString('base64url'))
  }

  seal(secret: string): string {
    const iv = randomBytes(IV_BYTES)
    const cipher = createCipheriv('aes-256-gcm', this.key, iv)
    const sealed = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()])
    return `${VERSION}.${Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64url')}`
  }

  /** What only this key says of some bytes, for one purpose: for the same bytes the same, 32 of them. */
  sign(purpose: string, of: Buffer): Buffer {
    return createHmac('sha256', this.key).update(`${purpose}\0`).update(of).digest()
  }

  /** Whether a signature, or the beginning of one, is of this key. */
  signed(purpose: string, of: Buffer, signature: Buffer): boolean {
    const whole = this.sign(purpose, of)
    return (
      signature.length > 0 &&
      signature.length <= whole.length &&
      timingSafeEqual(whole.subarray(0, signature.length), signature)
    )
  }

  /** What was sealed; null for what this key does not open. */
  open(sealed: string): string | null {
    const [version, text = ''] = sealed.split('.')
    const bytes = Buffer.from(text, 'base64url')
    if (version !== VERSION || bytes.length < IV_BYTES + TAG_BYTES) return null
    const decipher = createDecipheriv('aes-256-gcm', this.key, bytes.subarray(0, IV_BYTES))
    decipher.setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES))
    try {
      return Buffer.concat([decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES)), decipher.final()]).toString('utf8')
    } catch {
      return null
    }
  }
}

/** Whether something was sealed, by whatever key. */
export const isSealed = (text: string): boolean => text.startsWith(`${VERSION}.`)
