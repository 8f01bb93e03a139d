/** The longer side of a picture as it is kept, px. */
const LONGEST = 1280
/** A picture is kept in fewer bytes than this: each time it is not, it is made coarser. */
const MOST_BYTES = 600_000
const QUALITIES = [0.82, 0.7, 0.55, 0.4]

/** What was chosen is no picture this browser can read. */
export class NoPicture extends Error {}

/**
 * A picture as it is sent: upright, at most 1280 px a side, as JPEG. It is drawn anew, so that nothing of what the camera remarked (where, when, by
 * what) goes along.
 *
 * @throws NoPicture
 */
export async function scalePicture(file: Blob): Promise<File> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
    throw new NoPicture()
  })
  const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * scale))
  canvas.height = Math.max(1, Math.round(bitmap.height * scale))
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  for (const quality of QUALITIES) {
    const jpeg = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', quality))
    if (jpeg && (jpeg.size < MOST_BYTES || quality === QUALITIES.at(-1)))
      return new File([jpeg], 'bike.jpg', { type: 'image/jpeg' })
  }
  throw new NoPicture()
}
