import { complaintIn, type Complaint } from '@pelrin/core'
import { componentRows } from '../components/store.ts'
import type { Sheet, SheetBlock, SheetKind } from '@pelrin/contract'
import { bikeRecord } from '../bikes/record.ts'
import type { Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { jobOfBike } from '../jobs/store.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { bikeMends, chainNow } from '../mends/store.ts'
import { otherWearOf } from '../otherWear/store.ts'
import { bikeParts, partsFacts } from '../parts/bikeParts.ts'
import { carryCard } from './carryCard.ts'
import { customerSheet } from './customerSheet.ts'
import { riderSheet } from './riderSheet.ts'
import { shopZone } from '../days/shopZone.ts'
import { careOf } from '../care/store.ts'
import { homeSheet } from './homeSheet.ts'
import { localeOf, Words } from './words.ts'

/** Work of the last so many days is on a customer's sheet. */
const LATELY_DAYS = 60

/** A sheet with its words, as of now. @throws ProblemError 404 for a bike, or a break, there is none of */
export async function sheetOf(work: Work, bikeId: string, kind: SheetKind, asked: string): Promise<Sheet> {
  const record = await bikeRecord(work, bikeId)
  const [shop] = await work.select<{ name: string; currency: string }>(
    'SELECT name, currency FROM shops WHERE id = pelrin_shop()',
  )
  const zone = await shopZone(work)
  const words = new Words(localeOf(asked), zone, record.lastOdometer?.unit ?? 'km', shop!.currency)
  const { summary } = record
  return {
    kind,
    title: words.t(`sheet.title.${kind}`),
    head: words.t('sheet.head', { shop: shop!.name, day: words.day(work.now) }),
    bike: words.t('sheet.bike', {
      customer: record.customer.name,
      bike: summary.label,
      drive: words.t(`sheet.drive.${summary.drive.type}`, { speeds: summary.drive.speeds }),
      tag: summary.tag,
    }),
    madeAt: work.now.toISOString(),
    blocks: await blocksOf(work, bikeId, kind, words, record),
  }
}

/** What a bike is or was in for last, as somebody wrote it. */
async function complaintOf(work: Work, bikeId: string): Promise<Complaint | null> {
  const [visit] = await work.select<{ reason: string | null }>(
    'SELECT reason FROM visits WHERE bike_id = :bikeId ORDER BY day DESC, id DESC LIMIT 1',
    { bikeId },
  )
  return complaintIn(visit?.reason ?? '')
}

async function blocksOf(
  work: Work,
  bikeId: string,
  kind: SheetKind,
  words: Words,
  record: Awaited<ReturnType<typeof bikeRecord>>,
): Promise<SheetBlock[]> {
  const lately = (at: string): boolean => work.now.getTime() - Date.parse(at) < LATELY_DAYS * 86_400_000
  if (kind === 'carry-card') {
    const parts = await bikeParts(work, bikeId, { of: 'drive', joints: 'new', school: 'strict' })
    return carryCard(words, { parts, chain: await chainNow(work, bikeId) })
  }
  if (kind === 'at-home') {
    const { assumed } = await assumptionsInForce(work)
    return homeSheet(words, { care: await careOf(work, bikeId), assumed })
  }
  const { mends } = await bikeMends(work, bikeId)
  const { drive } = await partsFacts(work, bikeId)
  if (kind === 'rider') {
    const mend = mends.find(({ option }) => option !== null)
    if (!mend) throw new ProblemError(404, 'mend-none')
    const { assumed } = await assumptionsInForce(work)
    return riderSheet(words, { mend, drive, assumed })
  }
  const job = await jobOfBike(work, bikeId)
  return customerSheet(words, {
    record,
    job: job?.closedAt && lately(job.closedAt) ? job : null,
    mends: mends.filter(({ at }) => lately(at)),
    wear: await otherWearOf(work, bikeId),
    motor: drive.motor === true,
    complaint: await complaintOf(work, bikeId),
    parts: (await componentRows(work, bikeId)).filter(({ from, to }) => to === null && lately(from.toISOString())),
  })
}
