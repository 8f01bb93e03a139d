import { useTranslation } from 'react-i18next'
import type { ChainJoint, ChainThing } from '@pelrin/contract'
import { day, distance, percent } from '../../messages/format.ts'
import { intervalText } from '../../pieces/intervalText.ts'

/** What is said of a chain wherever it is named. */
export function useChainWords() {
  const { t } = useTranslation()
  return {
    facts: ({ pitches, care, km }: ChainThing, unit: 'km' | 'mi'): string =>
      [
        pitches === null ? null : t('stand.pitches', { count: pitches }),
        t(`care.${care}`),
        km === null ? t('chains.kmNone') : t('chains.km', { km: distance(km, unit) }),
      ]
        .filter((part) => part !== null)
        .join(', '),
    wear: ({ governing }: ChainThing): string =>
      governing === null
        ? t('chains.unread')
        : governing.value === null
          ? t('chains.wornBetween', { interval: intervalText(governing, t), date: day(governing.at) })
          : t('chains.worn', { value: percent(governing.value), date: day(governing.at) }),
    joint: (joint: ChainJoint | null): string => {
      if (!joint) return t('chains.jointNone')
      const name = joint.name ?? t(`parts.joint.${joint.kind}`)
      if (joint.kind === 'pin' || joint.kind === 'riveted') return name
      if (joint.closings === null) return t('chains.jointUncounted', { name })
      return joint.most === null
        ? t('chains.joint', { name, count: joint.closings })
        : t('chains.jointOf', { name, closings: joint.closings, most: joint.most })
    },
  }
}
