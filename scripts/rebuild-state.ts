import { inShop, openForServing } from '@pelrin/server/db'
import { rebuildState } from '../server/src/state/bikeState.ts'
import { PlainError, say } from './plain.ts'
import { SHOPS } from '../server/src/auth/models.ts'

/** `npm run rebuild-state`: derives every bike's state anew from its facts and says which had drifted. */
const url = process.env['DATABASE_URL']
if (url === undefined) throw new PlainError('Set DATABASE_URL to the database whose state is to be rebuilt.')
const database = await openForServing(url)
for (const shop of await database.of(SHOPS).findAll()) {
  const { bikes, differing } = await inShop(database, shop.id, null, rebuildState)
  say(
    `${shop.name}: ${bikes} bikes, ${differing.length} differed${differing.length > 0 ? `: ${differing.join(', ')}` : ''}`,
  )
}
await database.close()
