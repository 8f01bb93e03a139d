import { useTranslation } from 'react-i18next'

/** A chance as a mechanic says it. Never 0 or 100 in 100: a reading is never that sure. */
export function useChance(): (probability: number) => string {
  const { t } = useTranslation()
  return (probability) => {
    const n = Math.round(probability * 100)
    if (n < 1) return t('verdict.chanceLow')
    if (n > 99) return t('verdict.chanceHigh')
    return t('verdict.chance', { n })
  }
}
