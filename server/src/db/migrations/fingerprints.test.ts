import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { migrations } from './index.ts'

/** What each landed migration does, up and down, as it was when it landed. A new one is added with its own. */
const LANDED = JSON.parse(readFileSync(join(import.meta.dirname, 'fingerprints.json'), 'utf8')) as Record<
  string,
  string
>

async function fingerprint(name: string): Promise<string> {
  const migration = migrations.find((one) => one.name === name)!
  const said: string[] = []
  const run = (sql: string): Promise<void> => Promise.resolve(void said.push(sql.replace(/\s+/g, ' ').trim()))
  await migration.up(run)
  said.push('-- down')
  await migration.down(run)
  return createHash('sha256').update(said.join('\n')).digest('hex').slice(0, 24)
}

describe('a migration that landed', () => {
  it.each(migrations.map(({ name }) => name))('%s is as it was', async (name) => {
    // Databases out there went through it as it was: what is to be changed is another migration.
    expect(LANDED[name], `add "${name}": "${await fingerprint(name)}" to fingerprints.json`).toBe(
      await fingerprint(name),
    )
  })
  it('is still there, in its order', () => {
    expect(Object.keys(LANDED)).toEqual(migrations.map(({ name }) => name))
  })
})
