import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** The key that secrets are kept under in the database, made once, readable by its owner only. It is in no backup: copy it apart from them. */
export function secretKey(dataFolder: string): string {
  const file = join(dataFolder, 'secret-key')
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 })
  return readFileSync(file, 'utf8').trim()
}
