import { bikeReach, keepOff, type Assumptions } from '@pelrin/core'
import type { Mend, PartsFacts, SheetBlock } from '@pelrin/contract'
import type { Words } from './words.ts'

/** What the rider of a mended chain takes along in writing: which gears to keep off, and when to come by. */
export function riderSheet(
  words: Words,
  { mend, drive, assumed }: { mend: Mend; drive: PartsFacts['drive']; assumed: Assumptions },
): SheetBlock[] {
  const { option, followUpOn, advised } = mend
  if (!option) return []
  const gears = bikeReach(drive, option.left, assumed)
  const off = gears === null ? [] : keepOff(gears)
  const sentences = off.map(({ verdict, which, rears, ring }) =>
    words.t(`parts.keepOff.${verdict}`, {
      which: words.t(`parts.which.${which}`, { count: rears.length, teeth: rears.join(', ') }),
      ring: ring === null ? '' : words.t(`parts.ring.${ring}`),
    }),
  )
  return [
    {
      kind: 'text',
      strong: true,
      text: words.t('sheet.rider.intro', {
        day: words.day(mend.at),
        left: option.left,
        lost: option.lost > 0 ? words.t('sheet.rider.lost', { count: option.lost }) : words.t('sheet.rider.lostNone'),
      }),
    },
    { kind: 'heading', text: words.t('sheet.rider.gears') },
    ...(gears === null
      ? drive.type === 'derailleur'
        ? [{ kind: 'text' as const, text: words.t('sheet.rider.gearsUnknown'), strong: false }]
        : []
      : [
          {
            kind: 'list' as const,
            items: sentences.length === 0 ? [words.t('sheet.rider.gearsAll')] : sentences,
          },
          { kind: 'reach' as const, gears, caption: words.t('sheet.rider.map') },
        ]),
    ...(advised === ''
      ? []
      : [
          { kind: 'heading' as const, text: words.t('sheet.rider.advised') },
          { kind: 'text' as const, text: advised, strong: false },
        ]),
    ...(followUpOn === null
      ? []
      : [{ kind: 'text' as const, text: words.t('sheet.rider.follow', { day: words.day(followUpOn) }), strong: true }]),
    { kind: 'heading', text: words.t('sheet.cautions') },
    { kind: 'list', items: ['chain', 'fingers', 'makers'].map((one) => words.t(`sheet.caution.${one}`)) },
  ]
}
