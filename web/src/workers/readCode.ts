import {
  BinaryBitmap,
  DecodeHintType,
  Exception,
  HybridBinarizer,
  QRCodeReader,
  RGBLuminanceSource,
  type Result,
} from '@zxing/library'

/** A picture as a canvas gives it: four bytes a pixel, row by row. */
export interface Picture {
  readonly data: Uint8ClampedArray
  readonly width: number
  readonly height: number
}

const HINTS = new Map([[DecodeHintType.TRY_HARDER, true]])

/** The text of the code a picture shows, however it is turned; null where there is none that can be read. */
export function readCode({ data, width, height }: Picture): string | null {
  const light = new Uint8ClampedArray(width * height)
  for (let i = 0; i < light.length; i++) {
    // Green counts twice, as it does for the eye.
    light[i] = (data[4 * i]! + 2 * data[4 * i + 1]! + data[4 * i + 2]!) >> 2
  }
  const source = new RGBLuminanceSource(light, width, height)
  let result: Result
  try {
    result = new QRCodeReader().decode(new BinaryBitmap(new HybridBinarizer(source)), HINTS)
  } catch (error) {
    // Nothing there, half a code, one too dirty: all of them are its own.
    if (error instanceof Exception) return null
    throw error
  }
  return result.getText()
}
