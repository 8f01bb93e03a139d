import { join, resolve } from 'node:path'
import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { linkForOwner, openDatabase } from '@pelrin/server/db'
import { runningCluster, startCluster } from './postgres/cluster.ts'
import { PlainError, say, sentenceOf } from './plain.ts'
import { linkOf } from './ownersLink.ts'

/**
 * `npm run owner -- --new-token [--owner <name they sign in by>] [--shop <short name>] [--data <folder>]` makes a one-time link: for the first
 * day of a shop, or for an owner who lost the password.
 */
async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      'new-token': { type: 'boolean', default: false },
      owner: { type: 'string' },
      shop: { type: 'string' },
      data: { type: 'string' },
    },
  })
  if (!values['new-token'])
    throw new PlainError(
      'npm run owner -- --new-token makes a one-time link by which an owner comes in. See docs/running.md.',
    )
  const data = values.data === undefined ? resolve(import.meta.dirname, '../.pelrin') : resolve(values.data)
  const given = process.env['DATABASE_OWNER_URL'] ?? process.env['DATABASE_URL']
  const running = given === undefined ? runningCluster(data) : { adminUrl: given }
  const started = running ? null : await startCluster(data)
  const database = openDatabase(running?.adminUrl ?? started!.adminUrl)
  try {
    const link = await linkForOwner(database, values)
    if (!link)
      throw new PlainError(
        'There is no such owner, or more than one. Say which: --owner <the name they sign in by>, and --shop <its short name> where there are several shops.',
      )
    say(`${link.owner}, ${link.shop}: this link works once, until ${link.expiresAt.toLocaleTimeString()}.`)
    say(linkOf(addressIn(data), link.token))
  } finally {
    await database.close()
    await started?.stop()
  }
}

/** Where the Pelrin of a data folder serves, as far as it says so. */
function addressIn(data: string): string {
  try {
    const { url } = JSON.parse(readFileSync(join(data, 'running.json'), 'utf8')) as { url: string | null }
    if (url !== null) return url
  } catch {
    // It is not running, or somebody else's database is used.
  }
  return process.env['PUBLIC_HOSTS'] ? `https://${process.env['PUBLIC_HOSTS'].split(',')[0]!}` : 'http://127.0.0.1:7340'
}

main().catch((error: unknown) => {
  process.stderr.write(`${sentenceOf(error)}\n`)
  process.exit(1)
})
