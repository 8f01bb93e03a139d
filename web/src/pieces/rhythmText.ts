import type { TFunction } from 'i18next'

/** A customer's rhythm of looks in words. */
export function rhythmText(rhythm: { days: number | null; eachVisit: boolean } | null, t: TFunction): string {
  const said = [
    ...(rhythm?.days == null ? [] : [t('rules.rhythmDays', { count: rhythm.days })]),
    ...(rhythm?.eachVisit === true ? [t('rules.rhythmVisit')] : []),
  ]
  return said.length === 0 ? t('rules.rhythmShops') : said.join(', ')
}
