import { jointCandidateId } from '@pelrin/core'
import type { JudgedChain, JudgedJoint } from '@pelrin/contract'
import type { TFunction } from 'i18next'
import type { PlateShape } from '@pelrin/drawn'
import { moneyText } from '../../messages/format.ts'
import { ink } from '../../theme/theme.ts'

type Outcome = JudgedChain['outcome']

/** How each outcome looks: by shape and word, never by colour alone. */
export const OUTCOME_LOOK: Readonly<Record<Outcome, { plate: PlateShape; colour: string }>> = {
  fits: { plate: 'whole', colour: ink('steel') },
  caution: { plate: 'notched', colour: ink('brass') },
  'not-known': { plate: 'dashed', colour: ink('ink') },
  'does-not-fit': { plate: 'parted', colour: ink('madder') },
}

/** A price in the shop's money, or that there is none. */
export const priceText = (price: number | null, t: TFunction): string =>
  price === null ? t('parts.noPrice') : moneyText(price)

export const chainName = ({ part }: JudgedChain): string => `${part.maker} ${part.name}`

export const jointName = ({ part }: JudgedJoint, t: TFunction): string =>
  part.model === 're-press' ? t('parts.rePress') : `${part.model.maker} ${part.model.name}`

/** Tells joints of a list apart: the one that is on from new ones of its model. */
export const jointKey = (joint: JudgedJoint): string => jointCandidateId(joint)

/** What a part is made for, in words. */
export const speedsText = (speeds: readonly number[], t: TFunction): string =>
  speeds.join() === '1' ? t('catalogue.singleSpeed') : t('catalogue.speeds', { speeds: speeds.join(', ') })
