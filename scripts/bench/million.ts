import { createReadStream, createWriteStream } from 'node:fs'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import split2 from 'split2'
import { v7 } from 'uuid'
import { takeIn } from '../../server/src/archive/archiveIn.ts'
import { asShop } from '../../server/src/sessions/describe.ts'
import { writeArchive } from '../../server/src/archive/archiveOut.ts'
import { tableAsCsv } from '../../server/src/archive/csv.ts'
import { inShop, type Database } from '../../server/src/db/index.ts'
import { watched, type Went } from './watched.ts'
import { SHOPS } from '../../server/src/auth/models.ts'

const RIDES = 1_000_000

/**
 * Gives the shop a million rides, takes them out as a table and with all the shop as one archive, and takes that into an empty shop:
 * what each takes, and how much memory.
 *
 * @param folder for the files
 */
export async function million(database: Database, shopId: string, folder: string): Promise<Went[]> {
  await addRides(database, shopId)
  const shop = (await database.of(SHOPS).findByPk(shopId))!
  const archive = join(folder, 'shop.jsonl')
  const asTable = await watched('a million rides out as CSV', () =>
    pipeline([...tableAsCsv(database, shopId, 'rides'), createWriteStream(join(folder, 'rides.csv'))]),
  )
  const out = await watched('a shop with a million rides out as one archive', () =>
    writeArchive(database, asShop(shop), archive, new AbortController().signal),
  )
  const wayIn = await watched('the same into an empty one', async () => {
    const id = v7()
    await database.of(SHOPS).create({
      id,
      code: `bench-${id}`,
      name: 'Bench',
      timeZone: 'UTC',
      distanceUnit: 'km',
      demo: false,
    })
    await inShop(database, id, null, (work) =>
      takeIn(work, createReadStream(archive).pipe(split2()) as AsyncIterable<string>, { settings: false }),
    )
  })
  return [asTable, out, wayIn]
}

const addRides = (database: Database, shopId: string): Promise<unknown> =>
  inShop(database, shopId, null, (work) =>
    work.select(
      `INSERT INTO rides (id, bike_id, occurred_at, recorded_at, person_id, deleted, ended_at, km, source)
       SELECT gen_random_uuid(), (SELECT id FROM bikes ORDER BY id LIMIT 1), t, t, (SELECT id FROM people ORDER BY id LIMIT 1), false,
         t + interval '30 seconds', 1, 'typed'
       FROM (SELECT now() - i * interval '1 minute' AS t FROM generate_series(1, ${RIDES}) i) made`,
    ),
  )
