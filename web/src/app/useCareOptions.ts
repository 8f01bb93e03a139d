import { CARE_KINDS, type CareKind } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { useSurroundings } from './surroundings.ts'

/** Ways to treat a chain, those that are usual here first; and which is the most usual. */
export function useCareOptions(): { usual: CareKind; options: readonly (readonly [CareKind, string])[] } {
  const { t } = useTranslation()
  const { careWays } = useSurroundings().session.shop
  const all = [...new Set<CareKind>([...careWays, ...CARE_KINDS])]
  return { usual: careWays[0] ?? 'unknown', options: all.map((one) => [one, t(`care.${one}`)]) }
}
