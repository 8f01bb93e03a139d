import type { Sheet } from '@pelrin/contract'
import { sheetAsPdf } from './page.ts'
import { Words } from './words.ts'

export interface PrintAsked {
  readonly sheet: Sheet
  readonly locale: string
  readonly timeZone: string
  readonly unit: 'km' | 'mi'
  readonly currency: string
}

/** A sheet as a PDF. */
export default ({ sheet, locale, timeZone, unit, currency }: PrintAsked): Promise<Uint8Array> =>
  sheetAsPdf(sheet, new Words(locale, timeZone, unit, currency))
