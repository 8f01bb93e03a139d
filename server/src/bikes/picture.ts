import { imageSize } from 'image-size'
import type { BikeRecord } from '@pelrin/contract'
import { audited, authorOf, type Work } from '../db/work.ts'
import { ProblemError } from '../problems/problem.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { BIKE_PICTURES, BIKES } from './models.ts'

/** A picture as a tablet sends it is smaller than this, bytes. */
export const PICTURE_BYTES = 1_000_000
const LONGEST_SIDE = 4000
/** How a camera's own remarks begin in a JPEG: where and when it was taken, and by what. */
const REMARKS = ['Exif\0\0', 'http://ns.adobe.com/xap/', 'Photoshop 3.0'].map((text) => Buffer.from(text, 'latin1'))

/** When a bike's picture was taken in, by which its address tells one from the next; null where it has none. */
export async function pictureOf(work: Work, bikeId: string): Promise<BikeRecord['picture']> {
  const row = await work
    .of(BIKE_PICTURES)
    .findByPk(bikeId, { transaction: work.transaction, attributes: ['takenAt', 'width', 'height'] })
  return row && { at: row.takenAt.toISOString(), width: row.width, height: row.height }
}

/** The picture itself. @throws ProblemError 404 */
export async function pictureBytes(work: Work, bikeId: string): Promise<Buffer> {
  const row = await work.of(BIKE_PICTURES).findByPk(bikeId, { transaction: work.transaction })
  if (!row) throw new ProblemError(404, 'picture-none')
  return row.jpeg
}

/**
 * Keeps a picture of a bike, in place of the one before.
 *
 * @throws ProblemError 404; 422 for what is no JPEG, too large, or says where it was taken
 */
export async function keepPicture(work: Work, bikeId: string, jpeg: Buffer): Promise<BikeRecord['picture']> {
  await lockBikeState(work, bikeId)
  if (!(await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })))
    throw new ProblemError(404, 'bike-unknown')
  if (isJpeg(jpeg) && REMARKS.some((remark) => jpeg.includes(remark))) throw new ProblemError(422, 'picture-remarks')
  const { width, height } = sizeOf(jpeg)
  await work
    .of(BIKE_PICTURES)
    .upsert(
      { bikeId, jpeg, width, height, takenAt: work.now, personId: authorOf(work).personId },
      { transaction: work.transaction, conflictFields: ['shop_id', 'bike_id'] as never },
    )
  await audited(work, 'pictured', 'bike', bikeId, { bytes: jpeg.length })
  return pictureOf(work, bikeId)
}

/** Takes a bike's picture away. @throws ProblemError 404 */
export async function dropPicture(work: Work, bikeId: string): Promise<void> {
  const gone = await work.of(BIKE_PICTURES).destroy({ where: { bikeId }, transaction: work.transaction })
  if (gone === 0) throw new ProblemError(404, 'picture-none')
  await audited(work, 'unpictured', 'bike', bikeId)
}

const isJpeg = (bytes: Buffer): boolean => bytes.subarray(0, 2).equals(Buffer.from([0xff, 0xd8]))

function sizeOf(jpeg: Buffer): { width: number; height: number } {
  if (jpeg.length > PICTURE_BYTES) throw new ProblemError(413, 'picture-large')
  try {
    const { type, width, height } = imageSize(jpeg)
    if (type === 'jpg' && width > 0 && height > 0 && Math.max(width, height) <= LONGEST_SIDE) return { width, height }
  } catch {
    // Not a picture at all.
  }
  throw new ProblemError(422, 'picture-unread')
}
