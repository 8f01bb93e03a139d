import { carryList } from '@pelrin/core'
import type { BikeMatch, PartsFacts, SheetBlock } from '@pelrin/contract'
import type { ChainNow } from '../mends/store.ts'
import type { Words } from './words.ts'

/** What a rider has along: the spare link of this chain, the tools, what to do. */
export function carryCard(
  words: Words,
  { parts, chain }: { parts: Pick<PartsFacts, 'drive'> & Pick<BikeMatch, 'joints'>; chain: ChainNow | null },
): SheetBlock[] {
  const { drive, joints } = parts
  const link = joints
    .map(({ part }) => (part.model === 're-press' ? null : part.model))
    .find((model) => model?.kind === 'link' || model?.kind === 'clip')
  const spare = link
    ? words.t('sheet.card.spare', { link: `${link.maker} ${link.name}` })
    : drive.type === 'derailleur'
      ? words.t('sheet.card.spareAny', { speeds: drive.speeds })
      : words.t('sheet.card.spareClip')
  const items = carryList({ type: drive.type, openedBy: link?.openedBy ?? null, piece: chain?.offcut ?? 0 })
  return [
    {
      kind: 'list',
      items: items.map((item) =>
        item === 'spare' ? spare : words.t(`sheet.card.${item}`, { count: chain?.offcut ?? 0 }),
      ),
    },
    {
      kind: 'text',
      strong: false,
      text: [
        chain?.pitches == null ? null : `${words.t('sheet.card.count', { pitches: chain.pitches })}.`,
        drive.motor ? words.t('sheet.card.off') : null,
        words.t('sheet.card.ifBreaks'),
        words.t('sheet.card.maker'),
      ]
        .filter((part) => part !== null)
        .join(' '),
    },
  ]
}
